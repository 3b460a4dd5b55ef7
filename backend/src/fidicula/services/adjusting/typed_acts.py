"""Acts of adjusting and what was heard, as they are typed; what cannot be is refused, naming its field."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date

from fidicula.core.errors import CoreError
from fidicula.core.readings.plain import whole_number
from fidicula.core.readings.typed import in_unit, millimetres
from fidicula.core.sound.places import UNIT, TapLength
from fidicula.core.sound.ratings import HIGHEST, LOWEST, STRING_QUALITIES, WHOLE_QUALITIES
from fidicula.domain.errors import RefusedError
from fidicula.domain.work_details import PostMoved
from fidicula.judgement.targets.wanted import Targets
from fidicula.numerals import short
from fidicula.tables.sound import act_choices
from fidicula.views.adjustments.places import way_length
from fidicula.words.acts import DIRECTIONS

MOST_TAPS = 20
MOST_MM = 20.0
MOST_MASS = 200.0
"""Of what is tried on a bridge, its strings or its tailpiece. [g]"""
MOST_WOOD = 5.0
_HALF = {"½": "0.5", "1/2": "0.5"}


@dataclass(frozen=True)
class MoveTyped:
    """A move of one end as it was typed. taps, mm : one of them."""

    end: str
    direction: str
    taps: str
    mm: str
    tension: str
    tool: str
    words: str


@dataclass(frozen=True)
class WoodTyped:
    """Wood off the bridge as typed. off : how much.  left : of that place, may be empty.  reason : below a limit."""

    place: str
    off: str
    left: str
    reason: str
    words: str


@dataclass(frozen=True)
class HeardTyped:
    """after_work : the last work that the page knew, None for the newest.  listened : how, by field."""

    player: str
    rated: Mapping[str, int]
    words: Sequence[str]
    remark: str
    after_work: int | None = None
    listened: Mapping[str, str | int] = field(default_factory=dict)


@dataclass(frozen=True)
class PostTyped:
    """The post as it was typed; lengths may be empty."""

    length: str
    diameter: str
    wood: str
    grain_mark: str
    end_down: str
    fitted_on: date | None
    marks_inside: str


MOVED_ENDS = ("top", "bottom", "both", "opposite")
"""What went: one end, both the same way, or the top one way and the bottom the other."""


def moved_of(typed: MoveTyped, tap: TapLength | None) -> PostMoved:
    """A move as it is kept. tap : what a tap moved here, None before it was gauged.

    Raises RefusedError naming what is missing.
    """
    moved = _moved(typed)
    if typed.end in ("top", "bottom") or moved.direction is None:
        return moved
    length, known_to = way_length(moved.taps, moved.mm, tap)
    along, across = UNIT[moved.direction]
    top = (along * length, across * length)
    bottom = top if typed.end == "both" else (-top[0], -top[1])
    return moved.model_copy(
        update={
            "end": None,
            "direction": None,
            "taps": None,
            "mm": None,
            "vector": {"top": top, "bottom": bottom},
            "estimated": None if moved.mm is not None else known_to,
        }
    )


def _moved(typed: MoveTyped) -> PostMoved:
    if typed.end not in MOVED_ENDS:
        raise RefusedError("say which end went: its top, its bottom, both alike, or opposite ways", field="end")
    if typed.direction not in DIRECTIONS:
        raise RefusedError(
            "say which way it went: toward the bridge, the tailpiece, the treble side or the bass side",
            field="direction",
        )
    for name, chosen in (("tension", typed.tension), ("setter", typed.tool)):
        if chosen:
            check_choice(name, chosen, field="tool" if name == "setter" else name)
    taps, mm = typed.taps.strip(), typed.mm.strip()
    if bool(taps) == bool(mm):
        raise RefusedError("say how far: in taps or in mm, one of them", field="taps" if not mm else "mm")
    said = PostMoved(
        end="bottom" if typed.end == "bottom" else "top",
        direction=DIRECTIONS[typed.direction],
        tension=typed.tension,
        tool=typed.tool,
        words=typed.words.strip(),
    )
    if mm:
        return said.model_copy(update={"mm": size_of(mm, "mm", "the move", most=MOST_MM)})
    try:
        count = in_unit("taps", _HALF.get(taps, taps), what="how many taps")
    except CoreError as error:
        raise RefusedError(error.sentence, field="taps") from error
    if not 0 < count <= MOST_TAPS or count * 2 != int(count * 2):
        raise RefusedError(f"taps are whole, or half a light one, up to {MOST_TAPS}; it was {taps}", field="taps")
    return said.model_copy(update={"taps": count})


def check_choice(name: str, chosen: str, *, field: str) -> None:
    """Raises RefusedError for what is none of a list. name : of the list."""
    if chosen not in act_choices()[name]:
        raise RefusedError(f"choose one of: {', '.join(act_choices()[name].values())}", field=field)


def check_listened(listened: Mapping[str, str | int], strings: int) -> dict[str, str | int]:
    """What was said of how it was listened to, trimmed. Raises RefusedError naming the field."""
    said = {name: value.strip() if isinstance(value, str) else value for name, value in listened.items()}
    for name, choices in (("where", "listened_from"), ("behind_by", "behind_by")):
        if said.get(name):
            check_choice(choices, str(said[name]), field=name)
    behind = said.get("behind")
    if isinstance(behind, int) and behind >= strings:
        raise RefusedError(f"it has {strings} strings: say which of them falls behind", field="behind")
    if said.get("behind_by") and behind is None:
        raise RefusedError("say which string falls behind", field="behind")
    return {name: value for name, value in said.items() if value != ""}


def check_rated(rated: Mapping[str, int], names: Sequence[str]) -> None:
    """Raises RefusedError naming what cannot be."""
    for key, value in rated.items():
        quality, _, position = key.partition("/")
        string = whole_number(position)
        is_string = string is not None and string < len(names) and quality in STRING_QUALITIES
        if not (is_string or (not position and quality in WHOLE_QUALITIES)):
            raise RefusedError(f"“{key}” is nothing that is rated here", field="rated")
        if not LOWEST <= value <= HIGHEST:
            of = "" if string is None else f" of the {names[string]}"
            raise RefusedError(f"{quality}{of} goes from {LOWEST} to {HIGHEST}; it was {value}", field=key)


def check_left(targets: Targets, place: str, left: float) -> None:
    """Raises RefusedError where too little would be left."""
    others = targets.others
    floor, name = None, ""
    if place == "waist":
        wanted = others.get("bridge_waist_floor")
        floor, name = (None if wanted is None else wanted.band.low), "waist"
    elif place in ("crown", "front_face"):
        wanted = others.get("bridge_top_thickness")
        floor, name = (None if wanted is None else wanted.band.low), "thickness at the crown"
    if floor is not None and left < floor - 1e-9:
        raise RefusedError(
            f"the {name} is not taken under {short(floor)} mm; {short(left)} would be left: if it is meant, say why",
            field="reason",
        )


def size_of(typed: str, field: str, what: str, *, most: float) -> float | None:
    """A length that may be left open. [mm] Raises RefusedError naming the field."""
    if not typed.strip():
        return None
    try:
        value = millimetres(typed, what=what)
    except CoreError as error:
        raise RefusedError(error.sentence, field=field) from error
    if not 0 < value <= most:
        raise RefusedError(f"{what} is over 0 and up to {short(most)} mm; it was {short(value)}", field=field)
    return value
