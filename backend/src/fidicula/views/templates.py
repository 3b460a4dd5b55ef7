"""Templates at true size, made from what an instrument's cut is worked out from."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

from fidicula.core.fitting.nut import floor_points
from fidicula.core.geometry.board import arch
from fidicula.documents.shapes import Line, Template, Words, arc, as_dxf, as_pdf, as_svg
from fidicula.domain.errors import ConflictError
from fidicula.judgement.assessment.computing import Computed, Impossibility, compute
from fidicula.judgement.assessment.cut import cut_facts
from fidicula.judgement.assessment.nut import slot_turn, wanted_offsets
from fidicula.judgement.assessment.state import BenchState
from fidicula.words import templates as say

FORMATS: Mapping[str, tuple[Callable[[Template], bytes], str]] = {
    "pdf": (as_pdf, "application/pdf"),
    "svg": (as_svg, "image/svg+xml"),
    "dxf": (as_dxf, "image/vnd.dxf"),
}
_BEYOND = 6.0
"""How far a template goes on beside the outer strings. [mm]"""


def _computed(state: BenchState) -> Computed:
    found = compute(state)
    if isinstance(found, Impossibility):
        raise ConflictError(found.says)
    if found is None:
        raise ConflictError("the bridge cannot be worked out yet: name the strings and measure")
    return found


def _hand(state: BenchState) -> int:
    """Seen from the tailpiece the bass side lies to the left, on a left-handed instrument to the right."""
    return -1 if state.instrument.left_handed else 1


def _sides(state: BenchState, reach: float, y: float) -> list[Words]:
    """Both sides named, wherever they lie."""
    return [Words("bass", -_hand(state) * reach, y), Words("treble", _hand(state) * reach, y)]


def _notes(state: BenchState, *more: str) -> list[str]:
    return [say.instrument(state.instrument, state.string_set), *more]


def crown(state: BenchState) -> Template:
    """Crown now and crown wanted, spacing marks, and the marks of the straightedge."""
    computed = _computed(state)
    hand, plan = _hand(state), computed.plan
    centre = (hand * plan.crown.centre[0], plan.crown.centre[1])
    offsets = [hand * string.line.bridge_offset for string in plan.strings]
    reach = max(abs(offset) for offset in offsets) + _BEYOND
    foot = min(string.line.extension_height for string in plan.strings) - 12
    top = arc(centre=centre, radius=plan.crown.radius, from_x=-reach, to_x=reach)
    lines = [
        Line("cut", top),
        Line("cut", [top[0], (-reach, foot), (reach, foot), top[-1]]),
    ]
    words = _sides(state, reach - 8, foot + 2.5)
    old = []
    for i, (offset, string) in enumerate(zip(offsets, plan.strings, strict=True)):
        lines.append(Line("mark", [(offset, string.crown_height - 4), (offset, string.crown_height + 3)]))
        height = string.line.extension_height
        lines.append(Line("mark", [(offset - 2, height), (offset + 2, height)]))
        words.append(Words(string.name, offset, string.crown_height + 5))
        result = computed.results[i]
        if result is not None and result.cut.crown_cut is not None:
            old.append((offset, string.crown_height + result.cut.crown_cut))
    if len(old) > 1:
        lines.append(Line("old", sorted(old)))
    notes = say.crown(plan.crown.radius, is_firm=cut_facts(state, computed).state == "firm")
    return Template(say.CROWN_TITLE, state.instrument.ticket, _notes(state, *notes), lines, words)


def _strip(state: BenchState, title: str, offsets: Sequence[float], half: float, note: str) -> Template:
    hand, names = _hand(state), state.instrument.string_names
    lines = [Line("cut", [(-half, 0), (half, 0), (half, 14), (-half, 14), (-half, 0)])]
    lines += [Line("mark", [(hand * offset, 0), (hand * offset, 6)]) for offset in offsets]
    words = [Words(name, hand * offset, 7.5, 2.6) for name, offset in zip(names, offsets, strict=True)]
    words += _sides(state, half - 5, 11)
    return Template(title, state.instrument.ticket, _notes(state, note), lines, words)


def bridge_strip(state: BenchState) -> Template:
    """Where the strings sit across the bridge."""
    offsets = [string.line.bridge_offset for string in _computed(state).plan.strings]
    half = max(abs(offset) for offset in offsets) + _BEYOND
    return _strip(state, say.BRIDGE_TITLE, offsets, half, say.BRIDGE_NOTE)


def nut_strip(state: BenchState) -> Template:
    """Where the strings sit across the nut, as wide as the board is there."""
    width = state.read_or_figure("fingerboard_width", 0, figure="fingerboard_width_nut")
    if width is None or not state.diameters:
        raise ConflictError("name the strings and read the board's width at the nut first")
    offsets = _across_nut(state)
    return _strip(state, say.NUT_TITLE, offsets, width.value / 2, say.nut(width.value))


def _across_nut(state: BenchState) -> Sequence[float]:
    """Where the strings are to lie across the nut, from the middle. [mm]"""
    centre = [string.line.nut_offset for string in _computed(state).plan.strings]
    wanted = wanted_offsets(state)
    if wanted is None:
        return centre
    shift = (centre[0] + centre[-1]) / 2 - (wanted[0] + wanted[-1]) / 2
    return [offset + shift for offset in wanted]


def nut_front(state: BenchState) -> Template:
    """The nut from its front: the board's round, and how high each string stands over it."""
    computed = _computed(state)
    hand, radius = _hand(state), computed.board.radius_nut or computed.board.radius_end
    width = state.read_or_figure("fingerboard_width", 0, figure="fingerboard_width_nut")
    half = (width.value if width is not None else computed.singles["nut_spread"].value + 8) / 2
    lines = [Line("cut", arc(centre=(0, -radius), radius=radius, from_x=-half, to_x=half))]
    words = _sides(state, half - 4, arch(radius=radius, offset=half) - 5)
    points = []
    for offset, goal in zip(_across_nut(state), computed.goals, strict=True):
        x = hand * offset
        under = arch(radius=radius, offset=offset) + goal.nut_height
        points.append((x, under))
        lines.append(Line("mark", [(x, under), (x, under + 4)]))
        words.append(Words(goal.name, x, under + 5, 2.4))
    lines.append(Line("cut", sorted(points)))
    return Template(say.FRONT_TITLE, state.instrument.ticket, _notes(state, say.FRONT_NOTE), lines, words)


_WEDGE = {"violin": 8.0, "viola": 9.0, "cello": 12.0, "bass": 16.0}


def wedge_gauge(state: BenchState) -> Template:
    """A wedge to push under a string: it reads the shortest way to the board."""
    high = _WEDGE[state.instrument.family]
    long = 150.0
    lines = [Line("cut", [(0, 0), (long, 0), (long, high), (0, 0)])]
    words = []
    for half_mm in range(1, int(high * 2) + 1):
        x = long * half_mm / 2 / high
        whole = half_mm % 2 == 0
        lines.append(Line("mark", [(x, half_mm / 2), (x, half_mm / 2 - (2.0 if whole else 1.0))]))
        if whole:
            words.append(Words(str(half_mm // 2), x, -4, 3))
    return Template(say.WEDGE_TITLE, state.instrument.ticket, [say.wedge(high)], lines, words)


_CARD = {"violin": (9.0, 80.0), "viola": (9.0, 85.0), "cello": (14.0, 130.0), "bass": (18.0, 170.0)}


def card_gauge(state: BenchState) -> Template:
    """A card to reach through the f-hole: scales from both its ends for bar and post."""
    wide, long = _CARD[state.instrument.family]
    lines = [Line("cut", [(0, 0), (long, 0), (long, wide), (0, wide), (0, 0)])]
    words = []
    for mm in range(1, 31):
        tall = 4.0 if mm % 5 == 0 else 2.0
        lines += [Line("mark", [(mm, 0), (mm, tall)]), Line("mark", [(long - mm, wide), (long - mm, wide - tall)])]
        if mm % 10 == 0:
            words += [Words(str(mm), mm, tall + 0.6, 2.4), Words(str(mm), long - mm, wide - tall - 2.4, 2.4)]
    return Template(say.CARD_TITLE, state.instrument.ticket, [say.CARD_NOTE], lines, words)


def nut_floors(state: BenchState) -> Template:
    """Each slot's floor from the side, as long as the nut is thick: to hold beside the file."""
    depth = state.held("nut_thickness")
    if depth is None:
        raise ConflictError("read the nut, front to back, first")
    lines, words = [], []
    for i, name in enumerate(state.instrument.string_names):
        turn = slot_turn(state, i)
        if turn is None:
            raise ConflictError(f"read how the {name} runs down to its peg first, or choose the fixed fall")
        x = i * (depth.value + 12)
        floor = [(x + behind, -down) for behind, down in floor_points(turn, nut_thickness=depth.value)]
        lines.append(Line("cut", [(x, -6), *floor, (x + depth.value, -6), (x, -6)]))
        words.append(Words(name, x + depth.value / 2, 2, 2.6))
    return Template(say.FLOORS_TITLE, state.instrument.ticket, _notes(state, say.FLOORS_NOTE), lines, words)


TEMPLATES: Mapping[str, Callable[[BenchState], Template]] = {
    "crown": crown,
    "bridge_strip": bridge_strip,
    "nut_strip": nut_strip,
    "nut_front": nut_front,
    "nut_floors": nut_floors,
    "wedge_gauge": wedge_gauge,
    "card_gauge": card_gauge,
}
