"""The rules of a family as the workshop has them now."""

from __future__ import annotations

from weakref import WeakKeyDictionary

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.judgement.targets.rules import Rules, make_rules

_known: WeakKeyDictionary[Engine, dict[str, tuple[int, Rules]]] = WeakKeyDictionary()


def load_rules(uow: UnitOfWork, family: str, stamp: int | None = None) -> Rules:
    """The rules of a family as they stand now; read again only after an entry.

    stamp : where it is known already.
    """
    stamp = uow.rules.stamp() if stamp is None else stamp
    of_house = _known.setdefault(uow.engine, {})
    if family not in of_house or of_house[family][0] != stamp:
        rules = make_rules(
            family,
            figures=uow.rules.figures(family),
            recipes=uow.rules.recipes(family),
            shop_recipe=uow.rules.shop_recipe(family),
            tool_checks=uow.workflow.tool_checks(),
            own_sizes=[size for of, size in uow.rules.own_sizes() if of == family],
        )
        of_house[family] = (stamp, rules)
    return of_house[family][1]
