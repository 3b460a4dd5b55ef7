"""Behind the bridge: the afterlength in both schools, the tailgut, and the room at the saddle."""

from __future__ import annotations

from fidicula.core.fitting.tailpiece import afterlength_ratio, plan_afterlength
from fidicula.judgement.assessment.held import ResolvedValue
from fidicula.views.pages.bench import PageBench, told
from fidicula.views.pages.drawn import TailDrawing
from fidicula.views.pages.model import Consequence, PageView, Way
from fidicula.words.pages import tail as say

_MIN_GAP = 1.0


def tail_page(bench: PageBench) -> PageView:
    """What the afterlength is and can be."""
    length, after, gap = bench.read_or_figure("string_length"), bench.read("afterlength"), bench.read("saddle_gap")
    finding: list[str] = []
    consequences: list[Consequence] = []
    ways: list[Way] = []
    moved = 0.0
    if length is not None and after is not None and gap is not None:
        least = bench.slide(
            "min_saddle_gap",
            say.LABELS["min_saddle_gap"],
            rests_at=_MIN_GAP,
            low=0.5,
            high=5.0,
            step=0.1,
            rests_on=say.NEVER_TOUCHES,
        )
        divisor = bench.figure("afterlength_divisor")
        sixth = plan_afterlength(
            string_length=length.value,
            measured=after.value,
            saddle_gap=gap.value,
            min_saddle_gap=least,
            divisor=6 if divisor is None else divisor.band.aim,
        )
        whole = plan_afterlength(
            string_length=length.value, measured=after.value, saddle_gap=gap.value, min_saddle_gap=least, divisor=None
        )
        most = max(0.0, gap.value - least)
        moved = bench.slide(
            "tailpiece",
            say.LABELS["tailpiece"],
            rests_at=0.0,
            low=-20.0,
            high=max(most, 0.1),
            step=0.1,
            rests_on=say.WHERE_IT_HANGS,
        )

        finding.append(say.finding(after=after.value, sixth=sixth, gap=gap.value, least=least))
        consequences = _consequences(length, after.value, gap.value, moved=moved, least=least)
        takes = {"sixth": say.takes(sixth), "to_saddle": say.takes(whole), "leave": [say.stays(after.value)]}
        ways = bench.ways_of("afterlength", takes) or [
            Way("", label, school, say.takes(plan))
            for (label, school), plan in zip(say.SCHOOLS, (sixth, whole), strict=True)
        ]
    return bench.view(
        "tail",
        say.TITLE,
        finding=finding or [say.NOTHING_READ],
        consequences=consequences,
        ways=ways,
        question="afterlength" if bench.question("afterlength") else "",
        work="tailgut_changed",
        drawing=_drawing(bench, moved),
    )


def _consequences(length: ResolvedValue, after: float, gap: float, *, moved: float, least: float) -> list[Consequence]:
    """What a tailpiece that is moved so far makes of it. [mm]"""
    return [
        told(
            "afterlength",
            "afterlength",
            after,
            after + moved,
            [say.why_afterlength(after=after, moved=moved)],
        ),
        told(
            "saddle_gap",
            say.LABELS["saddle_gap"],
            gap,
            gap - moved,
            [say.why_gap(gap=gap, moved=moved, least=least)],
        ),
        told(
            "share",
            say.LABELS["share"],
            afterlength_ratio(string_length=length.value, afterlength=after),
            afterlength_ratio(string_length=length.value, afterlength=after + moved),
            [say.why_share(string_length=length.value, after=after + moved)],
            unit="",
            places=2,
            assumed=length.assumed,
        ),
    ]


def _drawing(bench: PageBench, moved: float) -> TailDrawing | None:
    """Behind the bridge, to scale; what nobody read is drawn as it is wanted. moved : of the tailpiece. [mm]"""
    state = bench.state
    length, after, gap = (state.held(name) for name in ("string_length", "afterlength", "saddle_gap"))
    behind, divisor = state.held("bridge_to_saddle"), bench.figure("afterlength_divisor")
    least = next((handle.at for handle in bench.handles if handle.name == "min_saddle_gap"), _MIN_GAP)
    if length is None:
        return None
    sixth = length.value / (6 if divisor is None else divisor.band.aim)
    read = None if after is None or after.assumed else after.value
    free = None if gap is None or gap.assumed else gap.value
    return TailDrawing(
        "tail",
        read,
        free,
        (sixth if read is None else read) + moved,
        None if free is None else free - moved,
        sixth,
        None if read is None or free is None else read + max(0.0, free - least),
        None if behind is None or behind.assumed else behind.value,
    )
