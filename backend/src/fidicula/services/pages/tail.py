"""Behind the bridge: the afterlength in both schools, the tailgut, and the room at the saddle."""

from __future__ import annotations

from fidicula.core.fitting.tailpiece import AfterlengthPlan, afterlength_ratio, plan_afterlength
from fidicula.services.numbers import number, short, signed_short
from fidicula.services.pages.bench import PageBench, told
from fidicula.services.pages.model import Consequence, PageView, Way

_MIN_GAP = 1.0
_CAUTION = "Strings slack, the top padded under the tailpiece, the bridge held: a falling tailpiece scratches the top."


def tail_page(bench: PageBench) -> PageView:
    """What the afterlength is and can be."""
    length, after, gap = bench.read_or_figure("string_length"), bench.read("afterlength"), bench.read("saddle_gap")
    finding: list[str] = []
    consequences: list[Consequence] = []
    ways: list[Way] = []
    if length is not None and after is not None and gap is not None:
        least = bench.slide(
            "min_saddle_gap",
            "what stays free at the saddle",
            rests_at=_MIN_GAP,
            low=0.5,
            high=5.0,
            step=0.1,
            rests_on="so that the tailpiece never touches",
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
            "the tailpiece moved, + toward the saddle",
            rests_at=0.0,
            low=-20.0,
            high=max(most, 0.1),
            step=0.1,
            rests_on="where it hangs",
        )

        finding.append(_said(after.value, sixth, gap.value, least))
        consequences = [
            told(
                "afterlength",
                "afterlength",
                after.value,
                after.value + moved,
                [f"{short(after.value)} {signed_short(moved)}"],
            ),
            told(
                "saddle_gap",
                "free at the saddle",
                gap.value,
                gap.value - moved,
                [f"{short(gap.value)} {signed_short(-moved)}; at least {short(least)} stays free."],
            ),
            told(
                "share",
                "string length over afterlength",
                afterlength_ratio(string_length=length.value, afterlength=after.value),
                afterlength_ratio(string_length=length.value, afterlength=after.value + moved),
                [f"{short(length.value)} ÷ {short(after.value + moved)}."],
                unit="",
                places=2,
                assumed=length.assumed,
            ),
        ]
        takes = {
            "sixth": _takes(sixth),
            "to_saddle": _takes(whole),
            "leave": [f"it stays at {short(after.value)}"],
        }
        ways = bench.ways_of("afterlength", takes) or [
            Way("", "A sixth of the string length", "One school.", _takes(sixth)),
            Way("", "All the way to the saddle", "Another school.", _takes(whole)),
        ]
    return bench.view(
        "tail",
        "Afterlength, tailgut and saddle",
        finding=finding or ["Read the afterlength and the gap at the saddle; then both schools stand here."],
        consequences=consequences,
        ways=ways,
        question="afterlength" if bench.question("afterlength") else "",
        caution=_CAUTION,
        work="tailgut_changed",
    )


def _said(after: float, sixth: AfterlengthPlan, gap: float, least: float) -> str:
    if gap < least - 1e-9:
        return f"The tailpiece stands {short(gap)} from the saddle: too near, {short(least)} has to stay "
        "free. A shorter tailgut."
    off = sixth.shift_to_saddle
    if abs(off) < 0.5:
        return f"The afterlength of {short(after)} is a sixth of the string length, near enough."
    way = "toward the saddle" if off > 0 else "toward the bridge"
    side = "short of" if off > 0 else "over"
    said = f"The afterlength of {short(after)} is {number(abs(off))} {side} a sixth, {number(sixth.target)}: "
    if sixth.reachable:
        return said + f"the tailpiece {number(abs(off))} {way}."
    return said + f"only {number(sixth.best)} can be reached before the saddle."


def _takes(plan: AfterlengthPlan) -> list[str]:
    way = "toward the saddle" if plan.shift_to_saddle >= 0 else "toward the bridge"
    words = [f"an afterlength of {number(plan.target)}, the tailpiece {number(abs(plan.shift_to_saddle))} {way}"]
    if not plan.reachable:
        words.append(f"not to be had: {number(plan.best)} is the most before the saddle")
    return [*words, "the tailgut stretches: look again after a night"]
