"""Numbers on the wire, each kind with its range. Strict: no numbers in quotes, no booleans, no infinities."""

from __future__ import annotations

from typing import Annotated, Any, TypeVar

from pydantic import BaseModel, ConfigDict, Field, model_validator

Length = Annotated[float, Field(gt=0, le=3000)]
"""Lengths, spreads, stops, widths, projection. [mm]"""
Height = Annotated[float, Field(ge=0, le=100)]
"""Heights of strings over board or nut, and slot depths. [mm]"""
Radius = Annotated[float, Field(gt=0, le=5000)]
"""Radii of board, crown and templates. [mm]"""
Diameter = Annotated[float, Field(gt=0, le=30)]
"""Of a string. [mm]"""
Offset = Annotated[float, Field(ge=-500, le=500)]
"""From the centre line, negative on the bass side. [mm]"""
Tilt = Annotated[float, Field(ge=-45, le=45)]
"""[degrees]"""
BoardAngle = Annotated[float, Field(ge=0, le=45)]
"""Between the board's line and a plane square to the bridge. [degrees]"""
SlotDepthRatio = Annotated[float, Field(ge=0, le=1)]
"""Of the string's diameter."""

Thickness = Annotated[float, Field(gt=0, le=100)]
"""Of wood, and what is like it: a sagitta, a divisor, a thread's pitch, a ratio of files. [mm or none]"""
Tolerance = Height
"""How far off is still right. [mm]"""
Relief = Annotated[float, Field(ge=0, le=20)]
"""[mm]"""
BowSpeed = Annotated[float, Field(ge=0, le=20)]
"""[m/s]"""
Gap = Annotated[float, Field(ge=-20, le=20)]
"""Under a straightedge, negative on a hump. [mm]"""
PegRun = Annotated[float, Field(gt=0, le=500)]
"""Run and drop of a string behind the nut. [mm]"""
Slope = Annotated[float, Field(ge=-45, le=45)]
"""Of a plate. [degrees]"""
FootPlace = Annotated[float, Field(ge=-50, le=100)]
"""Setback and inset as measured, or wanted without sign. [mm]"""
Tension = Annotated[float, Field(gt=0, le=5000)]
"""[N]"""
Density = Annotated[float, Field(gt=0, le=200)]
"""Linear density. [g/m]"""
Pitch = Annotated[float, Field(gt=0, le=20000)]
"""[Hz]"""
LoadAngle = Annotated[float, Field(ge=0, le=89)]
"""[degrees]"""
Share = Annotated[float, Field(ge=0, le=1)]
PointOnString = Annotated[float, Field(gt=0, lt=1)]
"""Of the sounding length."""
Fraction = Annotated[float, Field(ge=0, le=5)]
RatioPart = Annotated[float, Field(gt=0, le=1000)]
Cents = Annotated[float, Field(ge=-1200, le=1200)]
WheelChange = Annotated[float, Field(ge=-50, le=50)]
"""At a bridge with height wheels. [mm]"""
Semitones = Annotated[int, Field(ge=0, le=60)]
Minutes = Annotated[int, Field(ge=0, le=1_000_000)]
Benches = Annotated[int, Field(ge=1, le=100)]

Item = TypeVar("Item")
Strings = Annotated[list[Item], Field(min_length=3, max_length=6)]
"""One item a string, from the lowest to the highest: three to six."""
Pair = Annotated[list[Item], Field(min_length=2, max_length=2)]


class Wire(BaseModel):
    """What comes in: unknown fields are refused, null for an optional field means absent."""

    model_config = ConfigDict(extra="forbid", strict=True, allow_inf_nan=False, defer_build=True)

    @model_validator(mode="before")
    @classmethod
    def _null_means_absent(cls, data: Any) -> Any:
        if isinstance(data, dict):
            return {k: v for k, v in data.items() if v is not None or k not in cls.model_fields}
        return data


class Answer(BaseModel):
    """What goes out; a value that could not be computed for lack of an input is left out."""

    model_config = ConfigDict(extra="forbid", defer_build=True)

    def in_words(self) -> dict[str, Any]:
        """As it goes over the wire."""
        return self.model_dump(exclude_none=True)
