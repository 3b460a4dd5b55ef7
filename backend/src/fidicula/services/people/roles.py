"""What each role may do, and which stands above which."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

Role = Literal["owner", "luthier", "apprentice", "desk"]
Act = Literal["look", "arrive", "measure", "sign_off", "recipes", "figures", "people", "bill"]

MAY: Mapping[str, frozenset[Act]] = {
    "owner": frozenset({"look", "arrive", "measure", "sign_off", "recipes", "figures", "people", "bill"}),
    "luthier": frozenset({"look", "arrive", "measure", "sign_off", "recipes", "bill"}),
    "apprentice": frozenset({"look", "arrive", "measure"}),
    "desk": frozenset({"look", "arrive", "bill"}),
}
"""An apprentice does not sign off nor bill, the desk does not measure, the owner alone edits figures."""

RANK: Mapping[str, int] = {"desk": 0, "apprentice": 1, "luthier": 2, "owner": 3}

NAMED_BY_OTHERS: frozenset[Act] = frozenset({"look", "arrive", "measure"})
"""What someone who is known in a browser may have done there though somebody else is at the bench by now."""

PASSWORD_AGAIN: frozenset[Act] = frozenset({"people", "figures"})
"""For these whoever does them gives the password again."""


def may_undo(role: str, of_role: str | None) -> bool:
    """Whether a role may undo a mark that another set. of_role : None where nobody knows any more who it was."""
    return RANK[role] >= RANK[of_role or "luthier"]
