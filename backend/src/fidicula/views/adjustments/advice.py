"""What to do about a complaint: what has to be so first, small first steps by school, when to stop, who should not."""

from __future__ import annotations

from collections.abc import Sequence
from typing import cast

from fidicula.codes import ComputedSignCode, SignCode
from fidicula.tables.rows import row_of
from fidicula.tables.signs import computed_signs, findings
from fidicula.tables.sound import EVERY, Advice, advice
from fidicula.views.adjustments.heard import answers
from fidicula.views.adjustments.model import AdviceView
from fidicula.views.adjustments.places import Trail
from fidicula.words import trail as say
from fidicula.words.acts import ENDS

_ORDER = ("first", "strings", "back", "move", "bridge", "wood", "stop", "who")


def advice_for(
    complaint: str, trail: Trail, player: str, signs: frozenset[SignCode], names: Sequence[str], *, moves: str
) -> list[AdviceView]:
    """In the order in which it is heeded. signs : of the instrument now.  moves : the end that the shop moves first."""
    rows = [row for row in advice() if row.complaint in (complaint, EVERY)]
    rows.sort(key=lambda row: _ORDER.index(row.kind))
    return [_view(row, trail, player, signs, names, moves) for row in rows]


_NAMED = {"top": "The top", "bottom": "The bottom", "both": "Both ends alike"}
"""By the end that the shop moves first."""


def _view(
    row: Advice, trail: Trail, player: str, signs: frozenset[SignCode], names: Sequence[str], moves: str
) -> AdviceView:
    answered: list[str] = []
    step = ""
    if row.end is not None and row.direction is not None:
        step = say.first_step(moves, row.direction)
        for end in ENDS:
            answered += answers(trail, player, end=end, direction=row.direction, names=names)
    return AdviceView(
        kind=row.kind,
        says=row.says.replace(_NAMED["top"], _NAMED[moves]) if row.end else row.says,
        because=row.because,
        source=row.source,
        school=row.school or "",
        end=moves if row.end else "",
        direction=row.direction or "",
        step=step,
        unmet=[_sign_words(sign) for sign in row.against.shown(signs)],
        answered=answered,
    )


def _sign_words(sign: str) -> str:
    found = row_of(findings(), sign)
    if found is not None:
        return f"{found.item}: {found.label}"
    return computed_signs()[cast(ComputedSignCode, sign)].says
