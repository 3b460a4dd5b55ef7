"""A method of a record that does not change: what it answered for a place is not worked out again."""

from __future__ import annotations

from collections.abc import Callable
from functools import wraps
from typing import Any, TypeVar, cast

Method = TypeVar("Method", bound=Callable[..., Any])
_ABSENT = object()


def memoized(method: Method) -> Method:
    """Keeps each answer beside the record's fields, by what was asked; all that is asked can be hashed."""
    name = f"_{method.__name__}_answered"

    @wraps(method)
    def answered(self: Any, *asked: Any) -> Any:
        known: dict[Any, Any] = self.__dict__.setdefault(name, {})
        found = known.get(asked, _ABSENT)
        if found is _ABSENT:
            found = known[asked] = method(self, *asked)
        return found

    return cast("Method", answered)
