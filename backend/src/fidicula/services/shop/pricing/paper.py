"""The estimate as it goes to the owner: the plan in plain words, with what is wrong drawn from the readings."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime

from fidicula.core.geometry.scoop import gap_along
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.documents.estimate import Curve, EstimatePaper, Figure, Name, Point, Row, Step, as_pdf
from fidicula.domain.errors import ConflictError
from fidicula.judgement.assessment.scoop import SHARES, SIDES, wanted_relief
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.records import load_bench
from fidicula.services.shop.pricing.reckoning import reckon
from fidicula.services.shop.pricing.shown import plan_view
from fidicula.services.shop.pricing.view import VisitPlan
from fidicula.views.sheet.build import sheet_of
from fidicula.words import pricing as say
from fidicula.words.numbers import day_and_year

_STRAIGHT_MM = 0.05


class EstimatePapers:
    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def pdf(self, ticket: str) -> bytes:
        """Raises ConflictError while nothing is planned."""
        return as_pdf(self.paper(ticket))

    def paper(self, ticket: str) -> EstimatePaper:
        """What stands on it. Raises ConflictError while nothing is planned."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            view = plan_view(reckon(uow, loaded), loaded)
        if not view.lines:
            raise ConflictError("nothing is planned yet: plan the works, and they stand on the estimate")
        return _paper(view, loaded)


def _paper(view: VisitPlan, loaded: VisitRecord) -> EstimatePaper:
    instrument, whole = loaded.instrument, view.variants[-1]
    terms, approved = say.terms(whole.deposit), [one.says for one in view.approvals]
    return EstimatePaper(
        title=say.paper_title(view.ticket),
        subject=say.paper_subject(
            instrument.family, instrument.size, instrument.owner, day_and_year(datetime.now(UTC).astimezone().date())
        ),
        rows=[
            Row(
                label=line.label,
                detail=[
                    text
                    for text in (line.because, line.why, say.may_grow(line.risk), *(part.says for part in line.parts))
                    if text
                ],
                minutes=line.took or line.minutes,
                amount=line.amount,
                steps=[Step(step.label, step.minutes) for step in line.steps if not step.left_out],
            )
            for line in view.lines
        ],
        sums=[
            [
                one.label,
                one.usual.net if not view.discount else say.less(one.usual.net, one.usual.discount),
                one.usual.tax,
                one.usual.total,
                one.low.total if one.low.total == one.high.total else f"{one.low.total} – {one.high.total}",
            ]
            for one in view.variants
            if one.works
        ],
        notes=[text for text in (view.discount, whole.against, terms, *approved) if text],
        figures=[*_crown(loaded), *_board(loaded)],
        heads=say.PAPER_HEADS,
        sum_heads=say.sum_heads(view.tax),
        sign=say.SIGN,
    )


def _curves(now: Sequence[tuple[float, float]], wanted: Sequence[tuple[float, float]]) -> list[Curve]:
    return [
        Curve(say.NOW, is_wanted=False, points=[Point(x, y) for x, y in now]),
        Curve(say.WANTED, is_wanted=True, points=[Point(x, y) for x, y in wanted]),
    ]


def _crown(loaded: VisitRecord) -> list[Figure]:
    """The crown now and wanted, where every string's height was read and one is off."""
    drawing = sheet_of(loaded.assess(), loaded.rules).drawing
    strings = [] if drawing is None else drawing.strings
    now = [
        (string.offset, string.crown_now) for string in strings if string.crown_now is not None and not string.assumed
    ]
    wanted = [(string.offset, string.crown_wanted) for string in strings]
    known = [(x, y) for x, y in now if y is not None]
    if (
        not known
        or len(known) < len(strings)
        or all(abs(a[1] - b[1]) < _STRAIGHT_MM for a, b in zip(known, wanted, strict=True))
    ):
        return []
    return [
        Figure(
            title=say.CROWN_TITLE,
            stretch=say.STRETCHED,
            curves=_curves(known, wanted),
            names=[Name(string.offset, string.name) for string in strings],
        )
    ]


def _board(loaded: VisitRecord) -> list[Figure]:
    """The board's hollow under a straight edge, side by side with what is wanted, where it was read."""
    state, found = loaded.state(), []
    for side, name in enumerate(SIDES):
        read = [state.held("relief", side * len(SHARES) + i) for i in range(len(SHARES))]
        depths = [-one.value for one in read if one is not None]
        wanted = wanted_relief(state, side)
        if len(depths) < len(SHARES) or wanted is None:
            continue
        now = [(0.0, 0.0), *zip(SHARES, depths, strict=True), (1.0, 0.0)]
        hollow = gap_along(fingerboard_length=1.0, relief=wanted)
        even = [(share, -hollow(share)) for share in (0.0, *SHARES, 1.0)]
        found.append(
            Figure(
                title=say.board_title(name),
                stretch=say.STRETCHED,
                curves=_curves(now, even),
                names=[Name(0.0, say.NUT_END), Name(1.0, say.BODY_END)],
            )
        )
    return found
