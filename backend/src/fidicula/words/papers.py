"""What stands on papers, in words."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from fidicula.domain.instruments import Instrument
from fidicula.numerals import number, short, signed
from fidicula.words.numbers import day_and_year, listed, sentence

TITLES = {
    "setup": "Set-up sheet",
    "compared": "Before and after",
    "owner": "Your instrument",
    "condition": "Condition",
    "ticket": "",
    "label": "",
}
STRINGS, MEASURES, DONE, DECIDED, OPEN, CHECKED = (
    "Strings and bridge",
    "Measured",
    "Done at this visit",
    "Decided",
    "Left open",
    "Checked at pitch",
)
DAMAGE, CONDITION_HEADS = "Damage", ("no.", "what", "where", "how it is", "seen")
SEEN_BY_OWNER = "I have seen what is marked here"
CONDITION = "As it was found; measured by hand, each length to half a millimetre."
READ, WANTED, TOOL = "read", "wanted", "with"
NOTHING_READ = "Nothing was read at this visit."
NOTHING_DONE = "No work was done at this visit."
NOTHING_COMPARED = "Nothing that was read has changed."
CAME, NOW, CHANGE = "as it came", "now", "change"
WHAT_WE_DID, HOW_IT_STANDS, LEFT, CARE, NEXT = (
    "What we did",
    "How it stands now",
    "Left as it was",
    "How to keep it well",
    "Next check",
)
CAUTION = (
    "If it buzzes, hurts to play or anything moves, let the strings down a little and come to us before you go on."
)
SEALED = "The record of this visit is sealed"
CROWN = "The bridge from the tailpiece: solid as wanted, dashed as it is; each string's height at the board's end."
TRUE_SIZE, HALF_SIZE, QUARTER_SIZE = "True size.", "At half of its size.", "At a quarter of its size."
HEIGHTS = "The lowest and the highest string over the board, from the nut to the bridge; heights drawn larger."
LOOKED = "We measured it and looked it over; nothing had to be done."
REST_AS_IT_WAS = "Everything else that was read is as it was."
LAST_VISIT = "last visit"
DRAFT = "not signed yet"


def subject(instrument: Instrument, when: date) -> list[str]:
    """“violin 4/4, left-handed; Pia Sandoval-Reuter”, and the day."""
    hand = ", left-handed" if instrument.left_handed else ""
    owner = f"; {instrument.owner}" if instrument.owner else ""
    return [f"{instrument.ticket}: {instrument.family} {instrument.size}{hand}{owner}", day_and_year(when)]


def set_and_recipe(set_name: str, recipe: str, own: Sequence[str]) -> str:
    """“Strings: Harbour medium. Targets: the shop's recipe, differing in …”"""
    strings = f"Strings: {set_name}. " if set_name else ""
    return f"{strings}Targets: {', '.join([recipe, *own])}."


def band_words(low: float, high: float) -> str:
    return f"{short(low)}–{short(high)}"


def outside(by: float) -> str:
    """In band, or by how much it is not."""
    if not by:
        return "in band"
    return f"{number(abs(by), 2)} {'above' if by > 0 else 'below'}"


def change_words(before: float, after: float, places: int) -> str:
    return signed(after - before, places)


def pitch_line(label: str, by: str) -> str:
    return f"{label} ({by})" if by else label


def sealed(short_hash: str, by: str, at: date) -> str:
    return f"{SEALED}: {short_hash}. Signed by {by}, {day_and_year(at)}."


def next_check(when: date | None, why: str) -> str:
    if when is None:
        return "No further check is set. Come whenever something changes."
    return f"{day_and_year(when)}: {why}." if why else f"{day_and_year(when)}."


def heights(names: Sequence[str], low: float, high: float) -> str:
    return (
        f"At the end of the fingerboard the {names[0]} string stands {number(low)} mm over the board, "
        f"the {names[-1]} string {number(high)} mm."
    )


def in_band(yes: bool) -> str:
    return "That is as it should be." if yes else "That is not quite what we aim for; why it stays so is said below."


def projection(value: float) -> str:
    return (
        f"The neck's projection is {number(value)} mm: we compare it next time to see how the neck moves with the air."
    )


def humidity(value: float) -> str:
    return f"The air in the workshop had {number(value, 0)} % of humidity that day."


def done(labels: Sequence[str]) -> str:
    return f"{sentence(listed(list(dict.fromkeys(labels))))}"


def left_open(label: str, means: str, reason: str) -> str:
    told = f"{label}: {means}" if means else label
    return f"{told}. Why: {reason.rstrip('.')}." if reason else f"{told.rstrip('.')}."


def taken_by(name: str) -> str:
    return f"Taken by {name}" if name else "Taken by"


def signed_by(name: str) -> str:
    return f"Signed by {name}" if name else "Signed"


def foot(shop: str, ticket: str, title: str) -> str:
    return ", ".join(one for one in (shop, ticket, title.lower()) if one)


def photo_of(item: str, words: str, when: date) -> str:
    return f"{item}{f': {words}' if words else ''}, {day_and_year(when)}"


def label_lines(
    set_name: str, string_length: float | None, heights_at_end: Sequence[float], names: Sequence[str]
) -> list[str]:
    """What a label says of the set-up."""
    lines = [f"strings {set_name}"] if set_name else []
    if string_length is not None:
        lines.append(f"string length {short(string_length)} mm")
    if heights_at_end:
        lines.append("heights " + " ".join(f"{n} {number(v)}" for n, v in zip(names, heights_at_end, strict=True)))
    return lines


def label_dates(worked: bool, when: date | None, next_check: date | None) -> list[str]:
    """worked : something was done to it; it was only measured otherwise."""
    was = [] if when is None else [f"{'set up' if worked else 'measured'} {day_and_year(when)}"]
    come = [f"next check {day_and_year(next_check)}"] if next_check else []
    return ["; ".join([*was, *come])] if was or come else []


def on_ticket(promised: date | None, deadline: date | None) -> list[str]:
    return [
        *([f"promised for {day_and_year(promised)}"] if promised else []),
        *([f"needed for {day_and_year(deadline)}"] if deadline else []),
    ]
