"""Files of a template, for whoever asks for one."""

from __future__ import annotations

from dataclasses import dataclass

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import ConflictError, NotFoundError
from fidicula.judgement.assessment.questions import to_measure_again
from fidicula.services.loading.records import load_bench
from fidicula.views.templates import FORMATS, TEMPLATES


@dataclass(frozen=True)
class File:
    name: str
    content: bytes
    media_type: str


class Templates:
    """Use cases around the templates; they read and keep nothing."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def file(self, ticket: str, kind: str, form: str) -> File:
        """Raises NotFoundError for a template that there is not, ConflictError where nothing may be cut by it."""
        make, writing = TEMPLATES.get(kind), FORMATS.get(form)
        if make is None or writing is None:
            raise NotFoundError(f"there is no template {kind}.{form}", field="kind")
        with UnitOfWork(self._engine, only_reads=True) as uow:
            state = load_bench(uow, ticket).state()
        again = [state.name(place) for place in to_measure_again(state)]
        if again:
            raise ConflictError(f"nothing is cut by readings that do not hold: measure again {', '.join(again)}")
        write, media_type = writing
        try:
            return File(f"{ticket}-{kind}.{form}", write(make(state)), media_type)
        except ValueError as error:
            raise ConflictError(str(error)) from error
