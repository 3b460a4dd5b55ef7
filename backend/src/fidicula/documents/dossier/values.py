"""The kinds of value that a dossier consists of."""

from __future__ import annotations

from decimal import Decimal
from typing import Annotated, Any

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, PlainSerializer, StringConstraints


def _plain(amount: Decimal) -> str:
    return f"{amount:f}"


class Line(BaseModel):
    """One line of a record. Nothing that the format does not know is let through."""

    model_config = ConfigDict(extra="forbid", frozen=True, ser_json_inf_nan="strings")


At = Annotated[AwareDatetime, Field(description="a moment, in UTC")]
Words = Annotated[str, StringConstraints(max_length=20_000)]
Name = Annotated[str, StringConstraints(max_length=400)]
Mm = Annotated[float, Field(allow_inf_nan=False, description="mm, or the measure's own unit")]
Number = Annotated[float, Field(allow_inf_nan=False)]
Amount = Annotated[
    Decimal,
    Field(allow_inf_nan=False, max_digits=20),
    PlainSerializer(_plain, return_type=str, when_used="json"),
]
"""Money, minutes and counts: exact decimals, as a string."""
Detail = dict[str, Any]
Sha256 = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")]
