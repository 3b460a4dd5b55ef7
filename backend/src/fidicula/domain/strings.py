"""Strings, and the sets that they come in."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID


@dataclass(frozen=True)
class SetString:
    """One string of a set. diameter [mm], tension [N], linear_density [g/m]; None where unknown."""

    name: str
    diameter: float
    tension: float | None = None
    linear_density: float | None = None


@dataclass(frozen=True)
class StringSet:
    id: UUID
    name: str
    family: str
    material: str
    strings: tuple[SetString, ...]
    is_mixed: bool = False
