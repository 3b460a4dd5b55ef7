"""What was done, as it is kept: one model for each kind of work that says more than that it was done.

Read and written here alone: `detail_of` reads what the database holds, `kept` is what it is given.
"""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from typing import Any, Literal
from uuid import UUID

from pydantic import BaseModel, ConfigDict

from fidicula.codes import WorkCode

End = Literal["top", "bottom"]
Toward = Literal["bridge", "tailpiece", "treble", "bass"]
ByString = tuple[float | None, ...]
"""Low string first; None for one of which it is not known."""


class _Detail(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Plain(_Detail):
    """A work that says no more than that it was done; words : of somebody's own."""

    words: str = ""


PLAIN = Plain()


class CrownCut(_Detail):
    """What a pass set out to do. wood, drop : that were to go in all.  passes : that it was to take. [mm]"""

    wood: ByString = ()
    drop: ByString = ()
    passes: ByString = ()


class NutFiled(_Detail):
    """by : what was filed at each string, as somebody said; None where nothing was. [mm] Empty: nobody said."""

    by: ByString = ()
    words: str = ""


class SlotsFiled(_Detail):
    """by : how much deeper each slot at the bridge was to be filed; None for a string that was left alone. [mm]

    Nobody said which where it is empty: every string is measured again.
    """

    by: ByString = ()
    words: str = ""


class CrownBeside(_Detail):
    """by : the wood that was to go beside each string, whose floor stays; None for one that was left alone. [mm]"""

    by: ByString = ()
    words: str = ""


class WheelsTurned(_Detail):
    """turns : of the bass and the treble wheel, + up, as somebody said; None where nobody did."""

    turns: tuple[float | None, ...] = ()
    words: str = ""


class PostSet(_Detail):
    """tension : that the strings had as it was set, as act_choices.csv names it; empty where nobody said."""

    tension: str = ""
    words: str = ""


class PostMoved(_Detail):
    """One end, one way, by taps or mm; or both ends by their ways; or nobody said how.

    vector : by end, [toward the tailpiece, toward the treble side]. [mm]  place : that it was to go back to.
    half_of : the work of which it takes half back.  estimated : ± of a way that began at no gauged place. [mm]
    """

    end: End | None = None
    direction: Toward | None = None
    taps: float | None = None
    mm: float | None = None
    vector: Mapping[End, tuple[float, float]] | None = None
    place: int | None = None
    half_of: UUID | None = None
    estimated: float | None = None
    tension: str = ""
    tool: str = ""
    words: str = ""

    @property
    def says_how(self) -> bool:
        """Whether somebody said which end went, and which way."""
        return self.vector is not None or self.end is not None


class BridgeTrial(_Detail):
    """What was tried, or came off. trial : the work that put it on, where it comes off.  mass : where weighed. [g]"""

    what: str = ""
    place: str = ""
    mass: float | None = None
    words: str = ""
    trial: UUID | None = None


class BridgeWood(_Detail):
    """off : wood that was taken; left : of that place, None where nobody measured. [mm]"""

    place: str = ""
    off: float = 0.0
    left: float | None = None
    words: str = ""


class StringsFitted(_Detail):
    """set : its name.  positions : which strings, low string 0; empty for all.  which : their names.

    of_set : where only some are of it.  since : the day, where somebody knew.  fate : of those that came off.
    """

    set: str = ""
    positions: tuple[int, ...] = ()
    which: tuple[str, ...] = ()
    of_set: UUID | None = None
    since: date | None = None
    fate: str = ""
    hours_a_week: float | None = None


WorkDetail = (
    Plain
    | CrownCut
    | NutFiled
    | SlotsFiled
    | CrownBeside
    | WheelsTurned
    | PostSet
    | PostMoved
    | BridgeTrial
    | BridgeWood
    | StringsFitted
)

_MODELS: Mapping[str, type[WorkDetail]] = {
    "crown_cut": CrownCut,
    "nut_filed": NutFiled,
    "slots_filed": SlotsFiled,
    "crown_beside": CrownBeside,
    "adjusters_turned": WheelsTurned,
    "post_set": PostSet,
    "post_moved": PostMoved,
    "bridge_trial": BridgeTrial,
    "bridge_trial_off": BridgeTrial,
    "bridge_wood": BridgeWood,
    "strings_changed": StringsFitted,
    "strings_named": StringsFitted,
}
"""By the work, which tells them apart; every other work is `Plain`."""


def positions_of(detail: WorkDetail) -> frozenset[int] | None:
    """The strings that a work touched, low string 0; None where it says nothing of them."""
    if not isinstance(detail, SlotsFiled | CrownBeside) or not detail.by:
        return None
    return frozenset(i for i, by in enumerate(detail.by) if by)


def detail_of(work: WorkCode, kept: Mapping[str, Any]) -> WorkDetail:
    """What the database holds of a work. Raises ValidationError for what no version of the program wrote."""
    return _MODELS.get(work, Plain).model_validate(kept)


def kept(work: WorkCode, detail: WorkDetail) -> dict[str, Any]:
    """What the database is given: only what was said. Raises TypeError for the detail of another work."""
    if not isinstance(detail, _MODELS.get(work, Plain)):
        raise TypeError(f"{type(detail).__name__} is not the detail of {work}")
    return detail.model_dump(mode="json", exclude_defaults=True)
