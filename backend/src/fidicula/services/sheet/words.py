"""The word: what the sheet says, what to do in which order, and the caution where the risk is."""

from __future__ import annotations

from collections.abc import Sequence

from fidicula.core.bands import standing
from fidicula.services.measures import MEASURES
from fidicula.services.sheet.cut import Computed
from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import CutView, ProblemView, StringCutView, Words
from fidicula.services.sheet.questions import Asked, said_of, to_measure_again
from fidicula.services.sheet.thresholds import WORTH_FILING, WORTH_TAKING, outer_in_band

CAUTION = "Cut in the vise, blade away from you. Too low cannot be put back."


def _list(items: list[str]) -> str:
    return items[0] if len(items) == 1 else f"{', '.join(items[:-1])} and {items[-1]}"


def words(
    state: BenchState,
    cut: CutView,
    problem: ProblemView | None,
    computed: Computed | None,
    asked: Sequence[Asked] = (),
) -> Words:
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
    return _about_cut(state, cut, asked)


def _about_cut(state: BenchState, cut: CutView, asked: Sequence[Asked]) -> Words:
    known = [s for s in cut.strings if s.wood is not None]
    over = [s for s in known if s.wood is not None and s.wood >= WORTH_TAKING]
    in_band = outer_in_band(state)
    short = [s for s in known if s.wood is not None and s.wood <= -WORTH_TAKING]
    says: list[str] = []
    do: list[str] = []
    barring = next((one for one in asked if one.bars("crown_cut")), None)
    if barring is not None and barring.outcome is not None and barring.decision is not None:
        says.append(f"{barring.deciding.title}: decided by {barring.decision.decided_by}.")
        do.append(f"{barring.outcome.label}; the crown waits for it.")
    elif barring is not None:
        says.append(f"{_sentence(_list([said_of(sign) for sign in barring.because]))}.")
    says += _overruled(asked)
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
    elif over and barring is None:
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
    if barring is not None:
        decided = barring.outcome
        title = f"First: {_lower(decided.label)}" if decided else f"Decide first: {_lower(barring.deciding.title)}"
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


def _overruled(asked: Sequence[Asked]) -> list[str]:
    """What was decided past a gate or against what the signs speak for, with its reason: kept and printed."""
    return [
        f"{one.deciding.title}: {_lower(one.outcome.label)}, {one.decision.decided_by}: {one.decision.reason}"
        for one in asked
        if one.outcome is not None and one.decision is not None and one.decision.reason
    ]


def _lower(words: str) -> str:
    return words[0].lower() + words[1:]


def _sentence(words: str) -> str:
    return words[0].upper() + words[1:]


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
