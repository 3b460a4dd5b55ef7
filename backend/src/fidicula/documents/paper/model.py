"""What stands on a paper, block by block: the screen shows it, the PDF prints it. Everything is in words."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

Weight = Literal["thin", "plain", "bold"]
Anchor = Literal["start", "middle", "end"]


@dataclass(frozen=True)
class Stroke:
    """A line through points, in the sketch's own units, y upward. filled : a solid shape instead."""

    points: Sequence[tuple[float, float]]
    weight: Weight = "plain"
    dashed: bool = False
    filled: bool = False


@dataclass(frozen=True)
class Mark:
    """A word at a place. large : a figure that is read from afar."""

    x: float
    y: float
    words: str
    anchor: Anchor = "middle"
    large: bool = False


@dataclass(frozen=True)
class Sketch:
    """A drawing. width, height : of its field in its own units.  across : share of the paper's width.  says : for
    somebody who does not see it, and under it where `caption` is not empty."""

    says: str
    width: float
    height: float
    strokes: Sequence[Stroke]
    marks: Sequence[Mark] = ()
    across: float = 1.0
    caption: str = ""
    kind: Literal["sketch"] = "sketch"


@dataclass(frozen=True)
class Heading:
    words: str
    kind: Literal["heading"] = "heading"


@dataclass(frozen=True)
class Text:
    """small : a note.  strong : stands out."""

    words: str
    small: bool = False
    strong: bool = False
    kind: Literal["text"] = "text"


@dataclass(frozen=True)
class Points:
    """A list. boxes : each has a box that is ticked or not; else a dot."""

    lines: Sequence[str]
    ticked: Sequence[bool] = ()
    kind: Literal["points"] = "points"


@dataclass(frozen=True)
class Grid:
    """A table. right : columns that stand to the right, from 0.  widths : of columns, as shares.  strong : rows."""

    head: Sequence[str]
    rows: Sequence[Sequence[str]]
    right: Sequence[int] = ()
    widths: Sequence[float] = ()
    strong: Sequence[int] = ()
    kind: Literal["grid"] = "grid"


@dataclass(frozen=True)
class Pictures:
    """Photographs side by side, each with its words. ids : of photographs."""

    ids: Sequence[str]
    words: Sequence[str]
    kind: Literal["pictures"] = "pictures"


@dataclass(frozen=True)
class Sign:
    """Where somebody signs, or signed. strokes : as points of a path on a field of 280 by 88, y downward."""

    label: str
    strokes: str = ""
    kind: Literal["sign"] = "sign"


Block = Heading | Text | Points | Grid | Sketch | Pictures | Sign


@dataclass(frozen=True)
class Paper:
    """kind : its name.  size : of the page in mm.  subject : lines under the title.  foot : on every page."""

    kind: str
    title: str
    subject: Sequence[str]
    blocks: Sequence[Block]
    size: tuple[float, float] = (210.0, 297.0)
    foot: str = ""
    file: str = field(default="paper")
