"""The kinds of value that a dossier consists of."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from decimal import Decimal
from typing import Annotated, Any, TypeVar
from uuid import UUID

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, PlainSerializer, StringConstraints
from pydantic_core import SchemaValidator

from fidicula import limits


def _plain(amount: Decimal) -> str:
    return f"{amount:f}"


Model = TypeVar("Model", bound=BaseModel)


class Line(BaseModel):
    """One line of a record. Nothing that the format does not know is let through."""

    model_config = ConfigDict(extra="forbid", frozen=True, ser_json_inf_nan="strings")


def without_limits(model: type[Model]) -> Callable[[object], Model]:
    """How a record becomes a model on its way out: of the same kinds of value, whatever their length or size.

    What is on record is given out, also where it came in before there was a limit.
    """
    return SchemaValidator(_unlimited(model.__pydantic_core_schema__)).validate_python  # type: ignore[arg-type]


_LIMITS = frozenset({"max_length", "min_length", "ge", "gt", "le", "lt", "pattern", "max_digits", "decimal_places"})


def _unlimited(schema: object) -> object:
    match schema:
        case dict():
            return {
                name: _unlimited(part) for name, part in schema.items() if name not in _LIMITS or isinstance(part, dict)
            }
        case list():
            return [_unlimited(part) for part in schema]
        case _:
            return schema


At = Annotated[AwareDatetime, Field(ge=limits.EARLIEST, lt=limits.LATEST, description="a moment, in UTC")]
Day = Annotated[date, Field(ge=limits.EARLIEST.date(), lt=limits.LATEST.date())]
Words = Annotated[str, StringConstraints(max_length=limits.STORY)]
Name = Annotated[str, StringConstraints(max_length=limits.SENTENCE)]
Number = Annotated[float, Field(ge=-limits.FARTHEST, le=limits.FARTHEST, allow_inf_nan=False)]
Mm = Annotated[Number, Field(description="mm, or the measure's own unit")]
Amount = Annotated[
    Decimal,
    Field(allow_inf_nan=False, max_digits=limits.AMOUNT_DIGITS, decimal_places=limits.AMOUNT_PLACES),
    PlainSerializer(_plain, return_type=str, when_used="json"),
]
"""Money, minutes and counts: exact decimals, as a string."""
Strokes = Annotated[str, Field(max_length=limits.SIGNATURE)]
Detail = dict[str, Any]
Sha256 = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")]


class UndoableLine(Line):
    """A line that can be undone. taken_back_by : who undid it."""

    id: UUID
    taken_back_at: At | None
    taken_back_by: Name | None
