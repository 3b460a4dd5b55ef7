"""The pages of an instrument, worked out for where their handles stand."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import NotFoundError
from fidicula.judgement.assessment.inspection import open_findings
from fidicula.judgement.instruction.instruct import instruct
from fidicula.services.adjusting.records import load_trail
from fidicula.services.loading.records import load_bench
from fidicula.services.shop.shelf import lists_of
from fidicula.views.adjustments.view import made_trail
from fidicula.views.pages.bar import BLANKS, bar_page
from fidicula.views.pages.bench import PageBench
from fidicula.views.pages.board import board_page
from fidicula.views.pages.bridge import bridge_page
from fidicula.views.pages.load import load_page
from fidicula.views.pages.model import PageView
from fidicula.views.pages.neck import neck_page
from fidicula.views.pages.nut import nut_page
from fidicula.views.pages.placing import placing_page
from fidicula.views.pages.playing import playing_page
from fidicula.views.pages.post import post_page
from fidicula.views.pages.stringing import stringing_page
from fidicula.views.pages.tail import tail_page
from fidicula.views.pages.wheels import wheels_page
from fidicula.views.sheet.build import instruction_view
from fidicula.views.sheet.questions import question_views

PAGES: Mapping[str, Callable[[PageBench], PageView]] = {
    "board": board_page,
    "neck": neck_page,
    "nut": nut_page,
    "bridge": bridge_page,
    "place": placing_page,
    "bar": bar_page,
    "tail": tail_page,
    "load": load_page,
    "playing": playing_page,
    "wheels": wheels_page,
    "post": post_page,
    "strings": stringing_page,
}
_OF_FAMILY = {"wheels": ("cello", "bass")}


class PagesAtBench:
    """Use cases around the pages; they read and keep nothing."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def page(self, ticket: str, name: str, tried: Mapping[str, float | str]) -> PageView:
        """tried : handles that were moved.  Raises NotFoundError, and RefusedError naming a handle."""
        make = PAGES.get(name)
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            family = loaded.instrument.family
            if make is None or family not in _OF_FAMILY.get(name, (family,)):
                raise NotFoundError(f"a {family} has no page “{name}”", field="page")
            sets = uow.string_sets.of_family(family)
            shelf = lists_of(uow, family)
            records = load_trail(uow, loaded) if name == "post" else None
        a = loaded.assess(blanks=shelf.get(BLANKS, ()))
        bench = PageBench(
            a=a,
            state=a.state,
            instruction=instruction_view(a, instruct(a)),
            asked=question_views(a),
            seen=open_findings(a.state),
            sets=sets,
            shelf=shelf,
            tried=tried,
            with_schools=loaded.with_schools,
            schools=loaded.rules.offered(),
            with_set=loaded.with_set,
            trail=None if records is None else made_trail(loaded, records),
            post=None if records is None else next(iter(reversed(records.posts)), None),
        )
        view = make(bench)
        bench.check_tried()
        return view
