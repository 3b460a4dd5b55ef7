"""What is asked at the door, and what cannot be."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, date, datetime
from uuid import UUID, uuid5

from fidicula.codes import FindingCode
from fidicula.domain.errors import RefusedError
from fidicula.domain.visits import Seen
from fidicula.tables.signs import findings
from fidicula.tables.workflow import visit_kinds


@dataclass(frozen=True)
class VisitAsked:
    """What is asked of a visit. climate : damp, dry or empty.  freeze_days : without risky work before the deadline."""

    climate: str = ""
    deadline: date | None = None
    freeze_days: int = 3
    promised: date | None = None


COMES: tuple[FindingCode, ...] = ("strings_off", "bridge_down", "post_fallen")
"""How an instrument may come that cannot be played, as findings: states of it like any other."""


def came_as(comes: Sequence[str], *, visit_id: UUID, by: str) -> Iterator[Seen]:
    """What was seen at the door, a line for each item of the inspection. Raises RefusedError."""
    for typed in dict.fromkeys(comes):
        name = next((one for one in COMES if one == typed), None)
        if name is None:
            told = " or ".join(findings()[one].label for one in COMES)
            raise RefusedError(f"how it comes is said of strings, bridge and post: {told}", field="comes")
        item = findings()[name].item
        yield Seen(uuid5(visit_id, f"came {name}"), visit_id, item, "work", (name,), "", by, after_work=0)


@dataclass(frozen=True)
class Arrival:
    """An instrument at the door. id : of the instrument, made by whoever enters it.

    ticket : empty for the next free one.  string_names : empty for the usual four.
    size_without_figures : it is meant that the size has no figures yet.  comes : in which of the states of `COMES`.
    """

    id: UUID
    ticket: str
    family: str
    size: str
    string_names: Sequence[str]
    left_handed: bool
    opposite_build: bool
    is_new: bool
    owner: str
    description: str
    complaint: str
    kind: str
    visit: VisitAsked
    asked: Mapping[str, str] = field(default_factory=dict)
    is_fleet: bool = False
    size_without_figures: bool = False
    comes: Sequence[str] = ()


def check_kind(kind: str) -> None:
    if not kind:
        raise RefusedError("choose what it comes for", field="kind")
    if kind not in visit_kinds():
        raise RefusedError(f"an instrument comes for {', '.join(visit_kinds())}; it was “{kind}”", field="kind")


def check_dates(asked: VisitAsked, *, but: Sequence[str] = ()) -> None:
    """A day is still to come; what it is needed for is not before it is promised. but : days that stand already."""
    today = datetime.now(UTC).astimezone().date()
    for name, day in (("deadline", asked.deadline), ("promised", asked.promised)):
        if day is not None and day < today and name not in but:
            raise RefusedError(f"{day.day} {day:%B %Y} has passed: choose today or later", field=name)
    if asked.deadline is not None and asked.promised is not None and asked.promised > asked.deadline:
        raise RefusedError("it is promised for later than it is needed", field="promised")
