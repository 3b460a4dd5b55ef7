"""Damage in words: where a mark stands, how it is, what has become of it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from fidicula.domain.damage import DamageLook
from fidicula.judgement.assessment.damage import GROWN, DamageMark, ToSee
from fidicula.numerals import number
from fidicula.tables.damage import ENDS, FACES, STATES
from fidicula.words.numbers import day_and_year, plural, sentence

TO_SEE: Mapping[ToSee, str] = {
    "worked_on": "look again: it was worked on since",
    "last_visit": "look again: it was last seen at another visit",
    "tension": "measure it once more under tension: a crack opens as the strings pull",
}
NOTHING = "No damage is marked."
TO_SEE_LABEL = "Damage to look at again"
TO_SEE_MEANS = "nobody can say later whether it was there, or has grown"
_PLACES: Mapping[str, tuple[str, str, str]] = {
    "neck": ("from the nut", "bass", "treble"),
    "scroll": ("from the top of the scroll", "back", "front"),
    "bass_side": ("from the neck", "back", "front"),
    "treble_side": ("from the neck", "back", "front"),
}
_ON_A_PLATE = ("from the top edge", "bass", "treble")


def where(look: DamageLook) -> str:
    """“front, 312 mm from the top edge, 40 mm to the bass”, and where it ends."""
    begin = f"{FACES[look.face]}, {_place(look.face, look.along, look.across)}"
    if look.to_along is None or look.to_across is None:
        return begin
    return f"{begin}; to {_place(look.face, look.to_along, look.to_across)}"


def _place(face: str, along: float, across: float) -> str:
    of, minus, plus = _PLACES.get(face, _ON_A_PLATE)
    side = minus if across < 0 else plus
    aside = "in the middle" if abs(across) < 0.5 else f"{number(abs(across), 0)} mm to the {side}"
    return f"{number(along, 0)} mm {of}, {aside}"


def how(mark: DamageMark) -> str:
    """“open or moving; 41.0 mm; both ends seen; 2.5 mm longer than at first”"""
    last = mark.last
    lengths = [look.length for look in mark.looks if look.length is not None]
    return "; ".join(
        part
        for part in (
            STATES[mark.state],
            f"{number(lengths[-1])} mm" if lengths else "",
            ENDS[last.ends] if last.ends else "",
            grown(mark),
        )
        if part
    )


def grown(mark: DamageMark) -> str:
    if mark.grown is None:
        return ""
    if mark.has_grown:
        return f"{number(mark.grown)} mm longer than at first"
    return "as long as at first" if mark.grown > -GROWN else f"{number(-mark.grown)} mm shorter than at first"


def seen_line(look: DamageLook) -> str:
    """Of one look: “28 November 2026, under tension: 43.5 mm, open or moving; runs into the f-hole”"""
    when = "" if look.seen_at is None else day_and_year(look.seen_at.astimezone().date())
    tension = "under tension" if look.under_tension else "without tension"
    length = "" if look.length is None else f"{number(look.length)} mm"
    state = next((label for key, label in STATES.items() if key == look.state), look.state)
    return f"{when}, {tension}: {'; '.join(part for part in (length, state, look.words) if part)}"


def line(place: int, mark: DamageMark) -> str:
    """One mark on a paper: “1. Crack: front, 312 mm from the top edge …: open or moving; 41.0 mm”"""
    return f"{number(place, 0)}. {sentence(mark.kind.label)[:-1]}: {where(mark.last)}: {how(mark)}"


def to_see(marks: Sequence[DamageMark]) -> str:
    return f"{plural(len(marks), 'mark', 'marks')} on the damage map"


def history(look: DamageLook) -> str:
    kind = look.kind.replace("_", " ")
    return f"{sentence(kind)[:-1]}, {where(look)}: {seen_line(look).partition(': ')[2]}"


def signed(who: str, count: int) -> str:
    return f"{who} has seen {plural(count, 'mark', 'marks')} and signed"


def off_the_face(face: str, most: float) -> str:
    begin = _PLACES.get(face, _ON_A_PLATE)[0]
    return f"the {FACES[face]} has places up to {number(most, 0)} mm {begin}"
