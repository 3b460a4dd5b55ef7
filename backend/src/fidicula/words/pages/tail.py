"""What the page of the afterlength says."""

from __future__ import annotations

from fidicula.core.fitting.tailpiece import AfterlengthPlan
from fidicula.numerals import number, short
from fidicula.words.numbers import changed

TITLE = "Afterlength, tailgut and saddle"
NOTHING_READ = "Afterlength and gap at the saddle not measured. Both schools are compared once they are read."
LABELS = {
    "min_saddle_gap": "gap to keep at the saddle",
    "tailpiece": "tailpiece moved, + toward the saddle",
    "saddle_gap": "free at the saddle",
    "share": "string length over afterlength",
}
NEVER_TOUCHES = "so that the tailpiece never touches"
WHERE_IT_HANGS = "where it hangs"
SCHOOLS = (("A sixth of the string length", "One school."), ("All the way to the saddle", "Another school."))
STRETCHES = "the tailgut stretches: look again after a night"


def finding(*, after: float, sixth: AfterlengthPlan, gap: float, least: float) -> str:
    if gap < least - 1e-9:
        return (
            f"The tailpiece stands {short(gap)} from the saddle: too near, {short(least)} has to stay free. "
            "A shorter tailgut."
        )
    off = sixth.shift_to_saddle
    if abs(off) < 0.5:
        return f"The afterlength of {short(after)} is a sixth of the string length, near enough."
    side = "short of" if off > 0 else "over"
    said = f"The afterlength of {short(after)} is {number(abs(off))} {side} a sixth, {number(sixth.target)}: "
    if sixth.reachable:
        return said + f"the tailpiece {number(abs(off))} {_way(off > 0)}."
    return said + f"only {number(sixth.best)} can be reached before the saddle."


def takes(plan: AfterlengthPlan) -> list[str]:
    shift = plan.shift_to_saddle
    words = [f"an afterlength of {number(plan.target)}, the tailpiece {number(abs(shift))} {_way(shift >= 0)}"]
    if not plan.reachable:
        words.append(f"not to be had: {number(plan.best)} is the most before the saddle")
    return [*words, STRETCHES]


def stays(after: float) -> str:
    return f"it stays at {short(after)}"


def why_afterlength(*, after: float, moved: float) -> str:
    return changed(after, moved)


def why_gap(*, gap: float, moved: float, least: float) -> str:
    return f"{changed(gap, -moved)}; at least {short(least)} stays free."


def why_share(*, string_length: float, after: float) -> str:
    return f"{short(string_length)} ÷ {short(after)}."


def _way(to_saddle: bool) -> str:
    return "toward the saddle" if to_saddle else "toward the bridge"
