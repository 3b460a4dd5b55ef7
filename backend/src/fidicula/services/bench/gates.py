"""What stands before a work."""

from __future__ import annotations

from fidicula.codes import WorkCode
from fidicula.domain.errors import ConflictError
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.questions import to_measure_again
from fidicula.judgement.assessment.workflow import resting
from fidicula.judgement.visit_record import VisitRecord
from fidicula.tables.work import works
from fidicula.words.instructions import wait_words
from fidicula.words.names import key_name
from fidicula.words.numbers import answered, day_and_clock, lower_first
from fidicula.words.slips import slip_words


def check_not_by_two(loaded: VisitRecord, kind: WorkCode, known: int | None) -> None:
    """Raises ConflictError for a work that somebody recorded after the last one that the page knew."""
    if known is None:
        return
    since = next((w for w in reversed(loaded.works) if w.work == kind and w.number > known and not w.taken_back), None)
    if since is not None:
        at = since.done_at.astimezone()
        raise ConflictError(
            f"{since.done_by} recorded “{works()[kind].label}” at {at:%H:%M} already: "
            "record it again only if it was done once more"
        )


def check_may_be_done(a: Assessment, kind: WorkCode, *, despite_slips: bool = False) -> None:
    """Raises ConflictError for a work that a question, a wait, a slip or a reading that does not hold stands before."""
    barring = a.barring(kind)
    if barring is not None:
        raise ConflictError(
            barring.deciding.says
            if barring.outcome is None
            else answered(barring.deciding.title, f"first {lower_first(barring.outcome.label)}, as was decided")
        )
    rests = resting(a.state, kind, a.now)
    if rests is not None:
        why = wait_words(rests.step, rests.after, rests.reason)
        raise ConflictError(f"{why}, until {day_and_clock(rests.until)}: or end the wait, with a reason")
    slip = next((one for one in a.slips if one.stops), None)
    if kind == "crown_cut" and slip is not None and not despite_slips:
        raise ConflictError(slip_words(a, slip))
    if despite_slips:
        return
    again = [key_name(a.state.instrument, key) for key in to_measure_again(a.state, kind)]
    if again:
        raise ConflictError(f"these readings do not hold any more: measure again {', '.join(again)}")
    if kind == "crown_cut" and a.cut.state == "none":
        raise ConflictError("there is no cut to have done yet: measure the heights first")
