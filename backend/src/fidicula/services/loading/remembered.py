"""What was read a moment ago and need not be read again for every request."""

from __future__ import annotations

import time
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

Key = TypeVar("Key", bound=Hashable)
Value = TypeVar("Value")


class Remembered(Generic[Key, Value]):
    """Values by key for a short while. What was read before the last `forget` is never remembered after it."""

    def __init__(self, *, seconds: float, most: int = 500, clock: Callable[[], float] = time.monotonic) -> None:
        self._seconds, self._most, self._clock = seconds, most, clock
        self._lock = Lock()
        self._values: dict[Key, tuple[float, Value]] = {}
        self._times_forgotten = 0

    def get(self, key: Key) -> Value | None:
        """None where it is not known, or too long ago."""
        found = self._values.get(key)
        return found[1] if found is not None and self._clock() - found[0] < self._seconds else None

    def read(self, key: Key, read: Callable[[], Value]) -> Value:
        """The value, read again where it is not remembered."""
        found = self.get(key)
        if found is not None:
            return found
        before = self._times_forgotten
        value = read()
        with self._lock:
            if before == self._times_forgotten:
                if len(self._values) >= self._most:
                    self._values.clear()
                self._values[key] = (self._clock(), value)
        return value

    def forget(self) -> None:
        """Something was changed: all is read again."""
        with self._lock:
            self._times_forgotten += 1
            self._values.clear()
