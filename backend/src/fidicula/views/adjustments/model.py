"""What the trail consists of. These values go to the screen as they are."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from typing import Literal

from fidicula.codes import WorkCode
from fidicula.core.sound.places import Known


@dataclass(frozen=True)
class EndView:
    """Where one end stands: behind the foot's back edge and from the middle line, to the treble positive. [mm]

    behind, across : of its middle; None where nobody can tell.  setback, inset : as a card gauge reads it.
    known_to : ± in each direction. [mm]
    """

    end: Literal["top", "bottom"]
    known: Known
    behind: float | None
    across: float | None
    setback: float | None
    inset: float | None
    known_to: float


@dataclass(frozen=True)
class HeardView:
    """How it sounded to a player. rated : by “quality” or “quality/position”, 1 to 5.  mean : of all of them.

    is_other : somebody else played than the others heard; kept apart.  manner : how it was listened to, in words.
    """

    id: str
    player: str
    rated: dict[str, int]
    mean: float | None
    words: list[str]
    remark: str
    manner: str
    by: str
    at: datetime | None
    is_other: bool


@dataclass(frozen=True)
class RecordingView:
    id: str
    words: str
    by: str
    at: datetime


@dataclass(frozen=True)
class ChangedView:
    """By how much one quality changed with an act. label : “power of the E”."""

    label: str
    change: float


@dataclass(frozen=True)
class Line:
    """One act, and how it was after it.

    work : that it was, None for how it came.  place : number of the post's place from here on.
    is_new_place : the post, or the foot it is told from, stands elsewhere than before.
    irreversible : it cannot be taken back on the instrument.  marks : what is missing or to heed, in words.
    changed : against what was heard before it, by the same player, with nothing else between.
    on : what else was being tried as it was heard.
    """

    key: str
    work: WorkCode | None
    work_id: str | None
    says: str
    by: str
    at: datetime
    visit_id: str
    place: int
    is_new_place: bool
    irreversible: bool
    marks: list[str]
    heard: list[HeardView]
    recordings: list[RecordingView]
    changed: list[ChangedView]
    on: list[str]


@dataclass(frozen=True)
class PlaceView:
    """One place of the post, with what was heard while it stood there.

    at : since when.  incomparable : why it does not compare with now, in words; none where it does.
    from_other_foot : it was told from where the bridge's foot then stood.
    way_back : from where the post stands now, in words; empty where nothing says it.  vectors : the same. [mm]
    way_is_estimate : it does not begin and end at gauged places.
    mean : of the best that was heard there by this session's player.
    """

    number: int
    says: str
    at: datetime
    ends: list[EndView]
    is_now: bool
    is_best: bool
    incomparable: list[str]
    from_other_foot: bool
    way_back: str
    way_is_estimate: bool
    vectors: dict[str, list[float]]
    mean: float | None


@dataclass(frozen=True)
class PostView:
    """The post as an object. visit_id : at which it was described so. [mm]"""

    id: str
    visit_id: str
    length: float | None
    diameter: float | None
    wood: str
    grain_mark: str
    end_down: str
    fitted_on: date | None
    marks_inside: str
    by: str
    at: datetime | None


@dataclass(frozen=True)
class AdviceView:
    """One thing to do about a complaint. unmet : why it has to wait.
    step : the smallest first one, for a move.  answered : to earlier such acts here."""

    kind: str
    says: str
    because: str
    source: str
    school: str
    end: str
    direction: str
    step: str
    unmet: list[str]
    answered: list[str]


@dataclass(frozen=True)
class TrialView:
    """Something that is being tried on the bridge. id : of the work that put it on."""

    id: str
    says: str


@dataclass(frozen=True)
class SessionView:
    """A player at it. words : this player's own, those used most first."""

    player: str
    begun: bool
    words: list[str]


@dataclass(frozen=True)
class BlindView:
    """A series of blind comparisons. of : how many were agreed on.  trial : to be heard now, empty at the end.

    says, each : what came of it, and which was which; empty until the last was chosen.
    """

    id: str
    player: str
    of: int
    done: int
    trial: str
    says: str
    each: list[str]


@dataclass(frozen=True)
class BlindChance:
    """A number of comparisons that can be agreed on. says : what it can show."""

    trials: int
    says: str


@dataclass(frozen=True)
class SoundView:
    """Everything about an instrument's sound.

    now : number of the place where the post stands.  best : of the place where it sounded best, None before two.
    fallen : the post lies inside.
    unverified : why the place where it stands is not to be relied on, in words.
    may_go_back, may_halve : why not, in words; empty where it can be done.
    stop : why it is time to leave off, in words, empty where it is not.
    tap : what a tap moved here, in words.  complaint : that the advice is on.
    opens : what a move opens at an end, empty where the post is not described.
    """

    ticket: str
    session: SessionView
    places: list[PlaceView]
    lines: list[Line]
    now: int
    best: int | None
    unverified: list[str]
    fallen: bool
    may_go_back: str
    may_halve: str
    half_words: str
    tap: str
    opens: str
    post: PostView | None
    earlier_posts: list[PostView]
    fit: list[str]
    trials_on: list[TrialView]
    next_shaving: date | None
    stop: str
    complaints: dict[str, str]
    complaint: str
    advice: list[AdviceView]
    blind: list[BlindView]
    blind_chances: list[BlindChance]
    choices: dict[str, dict[str, str]]
    string_names: list[str]
    foot_width: float | None
    foot_thickness: float | None
    post_diameter: float | None
    wanted: EndView | None
