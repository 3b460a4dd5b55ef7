"""The demo's hand-overs, signed and sealed some time ago, and what came along with its instruments."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

from fidicula.cli.demo_trail import days_on
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.services.visits.belongings import Belongings, BelongingTyped
from fidicula.services.visits.damage import Damages, LookTyped
from fidicula.services.visits.handover.handing import HandingOver, Signature
from fidicula.services.visits.handover.sealing import sealed


def hand_over(engine: Engine, ticket: str, told: dict[str, Any], *, by: str) -> None:
    """The visit of some days ago, as it was signed then."""
    ago = timedelta(days=told["days_ago"])
    with UnitOfWork(engine) as uow:
        found = uow.instruments.by_ticket(ticket)
        assert found is not None
        uow.visits.date_back(found[1].id, ago)
        uow.commit()
    signature = Signature(
        left_open={"": told["left_open"]},
        next_check=days_on(told["next_check_days"]),
        next_check_why=told["next_check_why"],
        received_by=told["received_by"],
    )
    at = datetime.now(UTC) - ago
    HandingOver(engine).hand_over(ticket, signature, seal_id=uuid4(), by=by, all_right=True, at=at)


def bring(engine: Engine, ticket: str, thing: dict[str, str], *, by: str) -> None:
    """A fitting, something that came along, or something lent, as it was written down at the door."""
    said = {"which": "", "material": "", "count": "", "mass": "", "stamp": "", "place": "with_it", "lies": "", **thing}
    typed = BelongingTyped(thing=uuid4(), made_on=None, **said)  # type: ignore[arg-type]
    Belongings(engine).enter(ticket, typed, entry_id=uuid4(), by=by)


def mark(engine: Engine, ticket: str, seen: dict[str, Any], *, by: str) -> None:
    """Damage, as it was seen at the door."""
    said = {"to_along": "", "to_across": "", "length": "", "ends": "", "under_tension": False, "words": "", **seen}
    Damages(engine).look(ticket, LookTyped(thing=uuid4(), **said), look_id=uuid4(), by=by)


def seal_earlier(uow: UnitOfWork, visit_id: UUID, at: datetime, *, days_ago: int, by: str) -> None:
    """A visit that was written down just now, as one that ended at a time before: signed then."""
    ago = timedelta(days=days_ago)
    uow.visits.date_back(visit_id, ago)
    uow.leaving.seal(
        sealed(
            uow,
            id=uuid4(),
            visit_id=visit_id,
            points=[],
            next_check=None,
            next_check_why="",
            received_by="",
            signature="",
            by=by,
            at=at - ago,
        )
    )
