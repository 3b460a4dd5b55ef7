"""What asks for a luthier, one reason at a time."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from fidicula.numerals import short

_SIDES = {"above": "over the band", "below": "under the band"}
_BARE: Mapping[str, str] = {"work": "needs work", "watch": "to watch", "not_looked_at": "not looked at"}


def reading(string: str, value: float | None, side: str | None) -> str:
    said = string if value is None else f"{string} {short(value)} mm"
    return f"{said}, {_SIDES.get(side or '', 'doubted')}"


def item(label: str, verdict: str, findings: Sequence[str], words: str) -> str:
    parts = [_BARE["not_looked_at"], words] if verdict == "not_looked_at" else [", ".join(findings), words]
    return f"{label}: {'; '.join(part for part in parts if part) or _BARE[verdict]}"
