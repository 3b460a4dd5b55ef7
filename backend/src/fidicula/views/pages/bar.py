"""The bass bar and the bridge over it: which width of blank serves, and where the post's room is then."""

from __future__ import annotations

from collections.abc import Iterator

from fidicula.core.bands import side_of_band
from fidicula.core.fitting.post import BlankChoice, bar_insets, fit_after, nearest_blank, post_place, room_change
from fidicula.numerals import number, short, signed
from fidicula.views.pages.bench import PageBench, told
from fidicula.views.pages.drawn import BarDrawing
from fidicula.views.pages.model import Consequence, PageView, Table, Way
from fidicula.words.pages import bar as say

BLANKS = "bridge_blanks"
FIT_TOLERANCE = 0.1
_SHOWN = 7


def bar_page(bench: PageBench) -> PageView:
    """What the card gauge says of bar and post, and what other blanks would make of it."""
    inset, foot = bench.read("bar_inset"), bench.read("bridge_foot_width")
    wanted = bench.figure("bar_inset")
    finding: list[str] = []
    consequences: list[Consequence] = []
    tables: list[Table] = []
    ways: list[Way] = []
    tried: tuple[float, float] | None = None
    if inset is not None and foot is not None and wanted is not None:
        target = bench.slide(
            "bar_inset",
            say.LABELS["target"],
            rests_at=wanted.band.aim,
            low=0.0,
            high=max(8.0, wanted.band.high * 2),
            step=0.1,
            rests_on=wanted.source,
        )
        width = bench.slide(
            "foot_width",
            say.LABELS["foot_width"],
            rests_at=foot.value,
            low=round(foot.value * 0.85, 1),
            high=round(foot.value * 1.15, 1),
            step=0.1,
            rests_on="as read",
        )
        widths = sorted(bench.shelf.get(BLANKS, ()))
        insets = bar_insets(foot_width=foot.value, bar_inset=inset.value, widths=widths)
        choices = [BlankChoice(w, i) for w, i in zip(widths, insets, strict=True)]
        best = nearest_blank(choices=choices, bar_inset_target=target)
        finding.append(say.finding(inset=inset.value, foot=foot.value, target=target))
        finding.append(say.nearest(best))
        (under,) = bar_insets(foot_width=foot.value, bar_inset=inset.value, widths=[width])
        why = [say.why_inset(width=width, foot=foot.value, inset=inset.value)]
        label = say.LABELS["bar_inset"]
        consequences.append(told("bar_inset", label, inset.value, under, why, places=2, wanted=wanted))
        consequences += _post(bench, foot.value, width, under)
        tried = width, under
        tables.append(_table(choices, best, target))
        ways = bench.ways_of("bar", say.takes(best=best, inset=inset.value, foot=foot.value))
    return bench.view(
        "bar",
        say.TITLE,
        finding=finding or [say.NOTHING_READ],
        consequences=consequences,
        tables=tables,
        ways=ways,
        question="bar" if bench.question("bar") else "",
        caution=say.CAUTION,
        shelf=BLANKS,
        work="new_bridge",
        drawing=_drawing(bench, tried),
    )


def _drawing(bench: PageBench, tried: tuple[float, float] | None) -> BarDrawing | None:
    """The section at the bridge; where nothing is read it shows what is wanted.

    tried : width of the blank and the bar inside it; None where bar or feet were not read. [mm]
    """
    state = bench.state
    foot, inset = state.held("bridge_foot_width"), state.held("bar_inset")
    wanted, post = bench.figure("bar_inset"), bench.figure("post_diameter")
    usual = state.read_or_figure("bridge_foot_width")
    if wanted is None or post is None or usual is None:
        return None
    width, under = tried or (usual.value, wanted.band.aim)
    setback = bench.figure("post_setback")
    across = None
    if setback is not None:
        fixed = bench.figure("post_inset")
        mirrors = state.targets.schools.get("post_inset", "mirror_bar") == "mirror_bar" or fixed is None
        inside = under if mirrors or fixed is None else fixed.band.aim
        _, across = post_place(setback=setback.band.aim, inset=inside, foot_width=width, post_diameter=post.band.aim)
    return BarDrawing(
        "bar",
        foot.value if foot is not None and not foot.assumed else None,
        inset.value if inset is not None and not inset.assumed else None,
        width,
        under,
        wanted.band.low,
        wanted.band.high,
        side_of_band(value=under, band=wanted.band),
        post.band.aim,
        across,
        sorted(bench.shelf.get(BLANKS, ())),
        state.instrument.opposite_build,
    )


def _table(choices: list[BlankChoice], best: BlankChoice | None, target: float) -> Table:
    near = sorted(choices, key=lambda choice: abs(choice.bar_inset - target))[:_SHOWN]
    shown = [choice for choice in choices if choice in near]
    rows = [[short(c.width), number(c.bar_inset, 2), signed(c.bar_inset - target, 2)] for c in shown]
    marked = [[i, 0] for i, choice in enumerate(shown) if choice is best]
    return Table(say.BLANKS_TITLE, list(say.BLANKS_HEAD), rows, marked, say.BLANKS_SAYS)


def _post(bench: PageBench, foot: float, width: float, bar_inset: float) -> Iterator[Consequence]:
    """Where the post's top is wanted under a foot of another width; it mirrors the bar, or keeps its school's inset."""
    state = bench.state
    setback, diameter = bench.figure("post_setback"), bench.figure("post_diameter")
    if setback is None or diameter is None:
        return
    thick = diameter.band.aim
    school = state.targets.schools.get("post_inset", "mirror_bar")
    fixed = bench.figure("post_inset")
    inset = bar_inset if school == "mirror_bar" or fixed is None else fixed.band.aim
    behind, across = post_place(setback=setback.band.aim, inset=inset, foot_width=width, post_diameter=thick)
    read = state.held("post_setback", 0), state.held("post_inset", 0)
    now = None
    if read[0] is not None and read[1] is not None:
        now = post_place(setback=read[0].value, inset=read[1].value, foot_width=foot, post_diameter=thick)
    yield told(
        "post_across",
        say.LABELS["post_across"],
        None if now is None else now[1],
        across,
        say.why_across(width=width, inset=inset, thick=thick, mirrors=school == "mirror_bar"),
        places=2,
    )
    yield told(
        "post_behind",
        say.LABELS["post_behind"],
        None if now is None else now[0],
        behind,
        [say.why_behind(setback=setback.band.aim, thick=thick, source=setback.source)],
        places=2,
    )
    slopes = state.held("top_slope"), state.held("back_slope")
    if now is not None and slopes[0] is not None and slopes[1] is not None:
        change = room_change(offset_change=across - now[1], top_slope=slopes[0].value, back_slope=slopes[1].value)
        fit = fit_after(change=change, tolerance=FIT_TOLERANCE)
        yield told(
            "room",
            say.LABELS["room"],
            0.0,
            change,
            say.why_room(top_slope=slopes[0].value, back_slope=slopes[1].value, by=across - now[1], fit=fit),
            places=2,
        )
