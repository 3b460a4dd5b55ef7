"""The bass bar and the bridge over it: which width of blank serves, and where the post's room is then."""

from __future__ import annotations

from collections.abc import Iterator

from fidicula.core.fitting.post import BlankChoice, bar_insets, fit_after, nearest_blank, post_place, room_change
from fidicula.services.numbers import number, short, signed
from fidicula.services.pages.bench import PageBench, told
from fidicula.services.pages.model import Consequence, PageView, Table, Way

BLANKS = "bridge_blanks"
FIT_TOLERANCE = 0.1
_SHOWN = 7
FIT_WORDS = {
    "tighter": "tighter there: shortened and refitted first, a post too tight cracks the top",
    "same": "as firm there as here",
    "looser": "looser there: it will not hold, and a longer one is made",
}
_CAUTION = "The post is taken down and set with slack strings: a top that carries them without it gives way."


def bar_page(bench: PageBench) -> PageView:
    """What the card gauge says of bar and post, and what other blanks would make of it."""
    inset, foot = bench.read("bar_inset"), bench.read("bridge_foot_width")
    wanted = bench.figure("bar_inset")
    finding: list[str] = []
    consequences: list[Consequence] = []
    tables: list[Table] = []
    ways: list[Way] = []
    if inset is not None and foot is not None and wanted is not None:
        target = bench.slide(
            "bar_inset",
            "bar inside the foot, wanted",
            rests_at=wanted.band.aim,
            low=0.0,
            high=max(8.0, wanted.band.high * 2),
            step=0.1,
            rests_on=wanted.source,
        )
        width = bench.slide(
            "foot_width",
            "width over the feet",
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
        finding.append(_said(inset.value, foot.value, target))
        if best is None:
            finding.append("The shop's list of blanks is empty: say which widths there are.")
        else:
            finding.append(
                f"Of the blanks on hand {short(best.width)} comes nearest: the bar {number(best.bar_inset, 2)} inside."
            )
        (under,) = bar_insets(foot_width=foot.value, bar_inset=inset.value, widths=[width])
        consequences.append(
            told(
                "bar_inset",
                "bar inside the foot",
                inset.value,
                under,
                [f"{short(width)} ÷ 2 − ({short(foot.value)} ÷ 2 − {short(inset.value)}): the bar stays where it is."],
                places=2,
                wanted=wanted,
            )
        )
        consequences += _post(bench, foot.value, width, under)
        tables.append(_table(choices, best, target))
        takes = {
            "other_width": [
                f"a blank {short(best.width)} wide, the bar {number(best.bar_inset, 2)} inside its foot"
                if best
                else "no blank on hand",
                "the post mirrors the bar: it moves with the foot",
            ],
            "stays": [f"the bar stays {short(inset.value)} inside the foot of {short(foot.value)}"],
        }
        ways = bench.ways_of("bar", takes)
    return bench.view(
        "bar",
        "Bar, bridge width and the post's room",
        finding=finding or ["Bar and feet are read with the card gauge; then the blanks stand here."],
        consequences=consequences,
        tables=tables,
        ways=ways,
        question="bar" if bench.question("bar") else "",
        caution=_CAUTION,
        shelf=BLANKS,
        work="new_bridge",
    )


def _said(inset: float, foot: float, target: float) -> str:
    off = inset - target
    if abs(off) < 0.05:
        return f"The bar lies {short(inset)} inside the foot of a bridge {short(foot)} wide, as wanted."
    side = "too far inside" if off > 0 else "too near the edge"
    return (
        f"The bar lies {short(inset)} inside the foot of a bridge {short(foot)} wide: {number(abs(off))} {side}. "
        f"A bridge {number(abs(2 * off))} {'narrower' if off > 0 else 'wider'} would have it right."
    )


def _table(choices: list[BlankChoice], best: BlankChoice | None, target: float) -> Table:
    near = sorted(choices, key=lambda choice: abs(choice.bar_inset - target))[:_SHOWN]
    shown = [choice for choice in choices if choice in near]
    rows = [[short(c.width), number(c.bar_inset, 2), signed(c.bar_inset - target, 2)] for c in shown]
    marked = [[i, 0] for i, choice in enumerate(shown) if choice is best]
    return Table(
        "The nearest blanks on hand",
        ["width", "bar inside", "off what is wanted"],
        rows,
        marked,
        "The marked one comes nearest.",
    )


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
        "post's top from the middle, toward the treble",
        None if now is None else now[1],
        across,
        [
            f"{short(width)} ÷ 2 − {number(inset, 2)} − {short(thick)} ÷ 2, the post {short(thick)} thick.",
            _inset_words(school),
        ],
        places=2,
    )
    yield told(
        "post_behind",
        "post's top behind the foot, to its middle",
        None if now is None else now[0],
        behind,
        [f"{short(setback.band.aim)} + {short(thick)} ÷ 2. {setback.source}"],
        places=2,
    )
    slopes = state.held("top_slope"), state.held("back_slope")
    if now is not None and slopes[0] is not None and slopes[1] is not None:
        change = room_change(offset_change=across - now[1], top_slope=slopes[0].value, back_slope=slopes[1].value)
        fit = fit_after(change=change, tolerance=FIT_TOLERANCE)
        yield told(
            "room",
            "room for the post",
            0.0,
            change,
            [
                f"The plates close by {short(slopes[0].value)}° and {short(slopes[1].value)}° outward",
                f"over {signed(across - now[1], 2)} mm.",
                f"A post that fits is {FIT_WORDS[fit]}.",
            ],
            places=2,
        )


def _inset_words(school: str) -> str:
    return "It mirrors the bar." if school == "mirror_bar" else "The school keeps an inset of its own."
