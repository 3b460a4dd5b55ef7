"""The parts of an instrument, as every table names them."""

from __future__ import annotations

from typing import Literal, get_args

Part = Literal["pegs", "strings", "nut", "board", "neck", "bridge", "bar", "post", "tailpiece", "body"]
PARTS: tuple[Part, ...] = get_args(Part)
