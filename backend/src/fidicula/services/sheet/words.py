"""The word: what the sheet says, what to do in which order, and the caution where the risk is."""

from __future__ import annotations

from fidicula.core.bands import standing
from fidicula.services.measures import MEASURES
from fidicula.services.sheet.cut import Computed
from fidicula.services.sheet.gate import outcome_of, projection_question, to_measure_again
from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import CutView, ProblemView, StringCutView, Words

WORTH_TAKING = 0.1
"""Less wood than this is within what measuring can tell. [mm]"""

WORTH_FILING = 0.05
"""Less than this over the nut's aim is left alone. [mm]"""

CAUTION = "Cut in the vise, blade away from you. Too low cannot be put back."


def _list(items: list[str]) -> str:
    return items[0] if len(items) == 1 else f"{', '.join(items[:-1])} and {items[-1]}"


def words(state: BenchState, cut: CutView, problem: ProblemView | None, computed: Computed | None) -> Words:
    """What to read first, for the stage that this sheet is at."""
    if state.string_set is None:
        return Words(
            title="Which strings are on it?",
            says=["Slots and spacing are worked out from the strings' thickness."],
            do=["Choose the set that is on it, or enter its diameters."],
            caution=None,
        )
    if problem is not None:
        return Words(title="This shape cannot be", says=[problem.sentence], do=["Measure it again."], caution=None)
    if computed is None:
        missing = ", ".join(state.targets.missing)
        return Words(
            title="No figure for this instrument",
            says=[f"No figure for {missing}: enter the shop's own. Nothing is scaled from another size."],
            do=["Enter it under Figures, take the readings, or choose a school that has figures."],
            caution=None,
        )
    if cut.state == "none":
        stale = any(stand.state == "stale" for stand in state.standings.values())
        return Words(
            title="Measure again" if stale else "Measure the heights first",
            says=[
                "The work that was done made the old heights stale; a cut may not rest on them."
                if stale
                else "Two heights at the board's end already give a provisional cut."
            ],
            do=["Type what the caliper says; Enter takes it."],
            caution=None,
        )
    return _about_cut(state, cut)


def _about_cut(state: BenchState, cut: CutView) -> Words:
    known = [s for s in cut.strings if s.wood is not None]
    over = [s for s in known if s.wood is not None and s.wood >= WORTH_TAKING]
    in_band = outer_in_band(state)
    short = [s for s in known if s.wood is not None and s.wood <= -WORTH_TAKING]
    says: list[str] = []
    do: list[str] = []
    projection, accepted = _projection(state), _accepted(state)
    if projection is not None:
        says.append(projection[1])
        if projection[2]:
            do.append(projection[2])
    if accepted is not None:
        says.append(accepted)
    again = _again(state)
    _about_nut(state, cut, says, do)
    if short and not in_band:
        says.append(
            f"The bridge is too low at {_list([s.name for s in short])}: wood cannot be put back. "
            "A new bridge, or a remedy at the projection."
        )
    if over and in_band:
        to_aim = _list([f"{s.name} {s.wood:.1f}" for s in over])
        says.append(f"Nothing has to come off. To bring it to the aim, it would be {to_aim}.")
    elif over and again:
        do.append(f"Before more is cut, measure again: {_list(again)}.")
    elif over and projection is None:
        with_pass = [f"{s.name} {s.first_pass:.1f}" for s in over if s.first_pass is not None]
        creeping = any(s.first_pass != s.wood for s in over)
        if creeping:
            do.append(f"First pass, about seven tenths: take {_list(with_pass)}. String up, measure again.")
        else:
            do.append(f"Take {_list(with_pass)}. String up, measure again.")
        left = [s for s in over if s.old_slot_left is not None and s.old_slot_left > 0.005]
        if left:
            do.insert(
                0,
                f"File out the old slots at {_list([s.name for s in left])} first: they are deeper than the cut.",
            )
    title, opening = _title(cut, known, over, short, in_band=in_band)
    if projection is not None:
        title = projection[0]
    if opening:
        says.insert(0, opening)
    left_over = [s for s in known if s.last_wood is not None and s.wood is not None]
    if left_over:
        says.append(
            "Left after the last cut: "
            + ", ".join(f"{s.name} {_signed(s)} of {s.last_wood:.1f}" for s in left_over)
            + "."
        )
    return Words(title=title, says=says, do=do, caution=CAUTION if over else None)


def _again(state: BenchState) -> list[str]:
    """What has to be measured again before a cut, each measure once with its strings."""
    by_measure: dict[str, list[str]] = {}
    for measure, position in to_measure_again(state):
        strings = by_measure.setdefault(MEASURES[measure].label, [])
        if position is not None:
            strings.append(state.instrument.string_names[position])
    return [f"{label} ({' '.join(strings)})" if strings else label for label, strings in by_measure.items()]


def _signed(string: StringCutView) -> str:
    return f"{string.wood:.1f}".replace("-0.0", "0.0").replace("-", "−")


def outer_in_band(state: BenchState) -> bool:
    """Whether the heights of both outer strings are measured, hold, and stand in their bands."""
    for position in (0, state.count - 1):
        place = ("end_height", position)
        stand, wanted = state.standings.get(place), state.wanted_as_read(place)
        if stand is None or stand.usable is None or wanted is None:
            return False
        if standing(value=stand.usable, band=wanted.band) != "in_band":
            return False
    return True


def _title(
    cut: CutView,
    known: list[StringCutView],
    over: list[StringCutView],
    short: list[StringCutView],
    *,
    in_band: bool,
) -> tuple[str, str | None]:
    provisional = cut.state == "provisional"
    if in_band:
        return ("In band, so far" if provisional else "The heights stand in band"), None
    if short and not over:
        return "The bridge is too low", None
    if over:
        opening = f"{_list([s.name for s in over])} stand{'s' if len(over) == 1 else ''} above what is wanted."
        return ("A provisional cut" if provisional else "Take the crown down"), opening
    if len(known) < len(cut.strings):
        return "A provisional cut", "What is measured so far stands as wanted."
    return ("As wanted, so far" if provisional else "The crown stands as wanted"), "Nothing is to be taken off."


def _projection(state: BenchState) -> tuple[str, str, str] | None:
    """Title, what it says and what to do while the projection bars the crown; None where it does not."""
    question = projection_question(state)
    if question is None or question.is_open:
        return None
    side = "under" if question.judged.state == "low" else "over"
    out = f"The projection of {question.value:.1f} is {side} its band of {question.low:g} to {question.high:g}"
    if question.decision is None:
        return "Decide on the projection first", f"{out}: decide on it before any wood is cut.", ""
    row = outcome_of(question.decision)
    said = f"{out}. Decided by {question.decision.decided_by}: {row.label.lower()}."
    return f"First: {row.label.lower()}", said, "Then measure the projection again: the crown waits for it."


def _accepted(state: BenchState) -> str | None:
    question = projection_question(state)
    if question is None or question.decision is None or not question.is_open:
        return None
    decision = question.decision
    return f"The projection of {question.value:.1f} is accepted by {decision.decided_by}: {decision.reason}"


def _about_nut(state: BenchState, cut: CutView, says: list[str], do: list[str]) -> None:
    """Nut before bridge: what it gives is counted in the cut already."""
    to_file = [s for s in cut.strings if s.nut_to_file is not None and s.nut_to_file >= WORTH_FILING]
    low = []
    for i, name in enumerate(state.instrument.string_names):
        stand, wanted = state.standings.get(("nut_height", i)), state.wanted_as_read(("nut_height", i))
        usable = stand.usable if stand is not None else None
        if usable is None or wanted is None:
            continue
        if standing(value=usable, band=wanted.band) == "below":
            low.append(name)
    if to_file:
        says.append("The nut is generous: file it first. What it gives is counted in the cut.")
        do.append(f"File the nut: {_list([f'{s.name} {s.nut_to_file:.2f}' for s in to_file])}.")
    if low:
        says.append(f"The nut slot is too low at {_list(low)}; filing cannot put that right.")
