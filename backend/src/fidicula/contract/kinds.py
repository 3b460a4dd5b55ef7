"""The kinds of computation, and the one way to ask for any of them."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from importlib import import_module
from typing import Any, Generic, TypeVar

from pydantic import ValidationError
from pydantic_core import from_json

from fidicula.contract.quantities import Answer, Wire
from fidicula.contract.refusals import from_core, from_validation, malformed, out_of_all_measure
from fidicula.core.errors import CoreError

Request = TypeVar("Request", bound=Wire)
Result = TypeVar("Result", bound=Answer)


@dataclass(frozen=True)
class Kind(Generic[Request, Result]):
    """One kind: its wire models and its computation."""

    name: str
    summary: str
    request: type[Request]
    answer: type[Result]
    compute: Callable[[Request], Result]

    def answer_to(self, data: Any) -> dict[str, Any]:
        """The answer to one parsed JSON object. Raises Refusal."""
        try:
            answer = self.compute(self.request.model_validate(data)).in_words()
        except ValidationError as error:
            raise from_validation(error) from error
        except CoreError as error:
            raise from_core(error) from error
        except ArithmeticError as error:
            raise out_of_all_measure(data) from error
        if not _is_finite(answer):
            raise out_of_all_measure(data)
        return answer


def _is_finite(value: object) -> bool:
    match value:
        case float():
            return math.isfinite(value)
        case dict():
            return all(_is_finite(item) for item in value.values())
        case list():
            return all(_is_finite(item) for item in value)
    return True


_MODULES = {
    "spacing": ("spacing", "Where strings sit across a nut or a bridge."),
    "bridge": ("bridge", "The crown of a bridge, and what to take off at each string."),
    "nut": ("nut", "Nut slots: depth, file, and the turn to the peg."),
    "fingerboard": ("board_and_neck", "A board's faults, and what to plane off."),
    "stop": ("board_and_neck", "Neck, stop and string length against each other."),
    "projection": ("board_and_neck", "What the projection asks for: nothing, a reason, a wedge or a reset."),
    "load": ("load", "Tension and load."),
    "post": ("post", "Sound post, bass bar and bridge width."),
    "afterlength": ("tailpiece", "Where the tailpiece should go."),
    "clearance": ("stopped", "Whether a string rattles on the board, stop by stop."),
    "effort": ("stopped", "Finger force, semitone by semitone."),
    "adjusters": ("tailpiece", "Height wheels in a bass bridge."),
    "gauge": ("tailpiece", "Whether it wants a heavier string."),
    "schedule": ("schedule", "A bench day: steps on benches, with waits between."),
}
"""For each kind its module, which has XRequest, XAnswer and compute_x, and what it is."""


class Kinds(Mapping[str, Kind[Any, Any]]):
    """Every kind by its name. A module is imported when its kind is first asked for: the shell needs only one."""

    def __init__(self) -> None:
        self._loaded: dict[str, Kind[Any, Any]] = {}

    def __getitem__(self, name: str) -> Kind[Any, Any]:
        if name not in self._loaded:
            module_name, summary = _MODULES[name]
            module = import_module(f"fidicula.contract.{module_name}")
            stem = name.capitalize()
            self._loaded[name] = Kind(
                name,
                summary,
                getattr(module, f"{stem}Request"),
                getattr(module, f"{stem}Answer"),
                getattr(module, f"compute_{name}"),
            )
        return self._loaded[name]

    def __iter__(self) -> Iterator[str]:
        return iter(_MODULES)

    def __len__(self) -> int:
        return len(_MODULES)

    def __contains__(self, name: object) -> bool:
        return name in _MODULES


KINDS = Kinds()


def answer_of(text: bytes, kind: str) -> dict[str, Any]:
    """The answer of a kind to JSON text. Raises Refusal."""
    return KINDS[kind].answer_to(parse(text))


def parse(text: bytes) -> Any:
    """JSON without NaN and Infinity. Raises Refusal naming `body` for anything else."""
    try:
        return from_json(text, allow_inf_nan=False)
    except ValueError as error:
        raise malformed(f"this is not JSON: {error}") from error
