"""Papers of a visit, for whoever asks for one."""

from __future__ import annotations

from uuid import UUID

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.documents.paper.model import Paper, Pictures
from fidicula.documents.paper.pdf import paper_pdf
from fidicula.domain.errors import NotFoundError
from fidicula.services.visits.paper_source import load_source
from fidicula.views.papers.papers import BUILDERS, KINDS


class Papers:
    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def paper(self, ticket: str, kind: str, *, address: str = "") -> Paper:
        """address : of the application, for the ticket's code. Raises NotFoundError for a paper that there is not."""
        build = BUILDERS.get(kind)
        if build is None:
            raise NotFoundError(f"there is no paper “{kind}”: {', '.join(KINDS)}", field="kind")
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return build(load_source(uow, ticket, address=address))

    def pdf(self, ticket: str, kind: str, *, address: str = "") -> bytes:
        paper = self.paper(ticket, kind, address=address)
        ids = [one for block in paper.blocks if isinstance(block, Pictures) for one in block.ids]
        with UnitOfWork(self._engine, only_reads=True) as uow:
            found = {one: uow.photos.picture(UUID(one), small=False) for one in ids}
        pictures = {one: jpeg for one, jpeg in found.items() if jpeg is not None}
        return paper_pdf(paper, pictures=pictures)
