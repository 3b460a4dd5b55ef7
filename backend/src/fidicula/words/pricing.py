"""What is said of a plan and its price."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime
from decimal import Decimal

from fidicula.codes import WorkCode
from fidicula.core.pricing.estimate import Weight
from fidicula.core.pricing.minutes import LAST, Minutes
from fidicula.core.pricing.money import Span
from fidicula.numerals import short
from fidicula.tables.measures import measures
from fidicula.tables.pricing import Grade
from fidicula.tables.signs import findings
from fidicula.tables.work import invalidations, works
from fidicula.tables.workflow import questions
from fidicula.words.numbers import day_and_year, listed, money, percent, plural

GRADES: Mapping[Grade, str] = {
    "least": "the least that makes it playable",
    "usual": "the usual",
    "all": "all of it",
}
HOW: Mapping[str, str] = {
    "in_person": "in person",
    "phone": "by phone",
    "letter": "in writing",
    "signature": "signed on the tablet",
}
WISH = "asked for"
PLANNED = "planned"
ON_THE_PLAN = "It is on the plan, which says what it takes and whether the owner has approved it."
MOST_NAMED = 5
NO_APPROVAL = "The owner has not approved it yet: record the approval first."
ADDED_SINCE = "It was added after the owner approved: ask again."
REFUSED = "The owner left it out. If they want it after all, record that as an approval."
ALREADY_DONE = "It is done."
NO_VALUE = "Nobody has said what the instrument is worth: say it in the particulars, and it stands beside the price."
NOT_FINER = "openings and other finer work are left out: it is not worth enough for them"


def because(origin: str, name: str, reason: str) -> str:
    """What speaks for a work: a finding, a decision, a reading, a wish, or what was found underway."""
    match origin:
        case "finding" if name in findings():
            return f"found: {findings()[name].label}"
        case "decision" if name in questions():
            return f"decided: {questions()[name].short.lower()}"
        case "reading" if name in measures():
            return f"read: {measures()[name].label}"
        case "underway":
            return f"found underway: {reason}"
    return reason or WISH


def refused_before(words: str, when: datetime) -> str:
    """A work that was left out at an earlier visit."""
    told = f"left out on {day_and_year(when.astimezone().date())}"
    return f"{told}: “{words}”" if words else told


def took_more(came_to: str, agreed: str) -> str:
    return f"What is done came to {came_to}, and the owner agreed to {agreed}: ask before it is billed."


def amount(span: Span, currency: str) -> str:
    """“€45.00”, or “€45.00 to €60.00”."""
    low, high = money(span.low, currency), money(span.high, currency)
    return low if low == high else f"{low} to {high}"


def minutes(span: Span) -> str:
    """“45 min”, or “30 to 75 min”."""
    if span.is_certain:
        return f"{span.usual:f} min"
    return f"{span.low:f} to {span.high:f} min"


def own_minutes(found: Minutes) -> str:
    """The shop's own minutes, beside those that the table starts from."""
    if found.own is not None:
        last = min(found.records, LAST)
        return f"own: {found.own:f} min, the median of the last {last}; starting value {found.starting.usual:f}"
    return f"{plural(found.records, 'record', 'records')} of its own so far" if found.records else ""


def grows(work: WorkCode) -> str:
    """The high end counts another work in."""
    return f"the high end counts in “{works()[work].label.lower()}”"


def of_step(why: str | None, waits: float | None) -> str:
    """Why a step is done, and how long the next one waits for it."""
    told = [why] if why else []
    if waits is not None:
        told.append(f"the next step waits {short(waits)} h")
    return "; ".join(told)


def stale_after(work: WorkCode) -> str:
    """What has to be measured again after a work."""
    names = [
        measures()[measure].label for measure, by in invalidations().items() if work in by and measure in measures()
    ]
    if len(names) > MOST_NAMED:
        names = [*names[: MOST_NAMED - 1], f"{len(names) - MOST_NAMED + 1} more"]
    return f"to measure again after it: {listed(names)}" if names else ""


def against_value(weight: Weight, share: Decimal, total: str, value: str) -> str:
    """How a price stands beside what the instrument is worth, and what follows from it."""
    told = f"{total} is {percent(share)} of the {value} that it is worth"
    match weight:
        case "advise_against":
            return (
                f"{told}. Advise against it: another instrument of that price, set up by a luthier, would be better. "
                "Tell the owner before anything is begun, and let them choose."
            )
        case "discuss":
            return f"{told}. Talk it over first: an instrument worth both together might serve better."
        case "say":
            return f"{told}. Tell the owner before anything is begun."
    return f"{told}."


def first(work: WorkCode) -> str:
    """A planned work that comes before."""
    return f"First: {works()[work].label.lower()}."


def runs(name: str) -> str:
    return f"{name} is at it."


def only(role: str) -> str:
    return f"A {role} does this."


def beyond(would: str, agreed: str) -> str:
    return f"It would come to {would}; the owner agreed to {agreed}: ask again."


def missing(label: str, here: str) -> str:
    return f"{label}: there {'is' if here == '1' else 'are'} {here} in the drawers."


def approved(who: str, how: str, when: str, up_to: str) -> str:
    return f"{who} approved up to {up_to}, {HOW.get(how, how)}, {when}"


def agreed(who: str, how: str, up_to: str) -> str:
    """The reason that a decision keeps."""
    return f"{who} approved up to {up_to}, {HOW.get(how, how)}"


def discount(share: str, reason: str) -> str:
    return f"{share} off, {reason}" if reason else f"{share} off"


def spent(spent: str, agreed: str) -> str:
    return f"Spent so far {spent} of {agreed}"


def not_approved(labels: Sequence[str]) -> str:
    """Works that were added since."""
    return f"Not approved yet: {listed(list(labels))}"


PAPER_HEADS = ("what is done, and why", "time", "amount")
CROWN_TITLE = "The bridge's crown: as it is, and as it is wanted"
STRETCHED = "Heights are drawn larger than widths."
NOW, WANTED = "now", "wanted"
NUT_END, BODY_END = "nut", "board's end"
SIGN = "Agreed, day and name"


def paper_title(ticket: str) -> str:
    return f"Estimate for {ticket}"


def paper_subject(family: str, size: str, owner: str, day: str) -> list[str]:
    return [f"{family} {size}, {owner}" if owner else f"{family} {size}", day]


def board_title(side: str) -> str:
    return f"The board's hollow along its {side} side: as it is, and as it is wanted"


def may_grow(risk: str) -> str:
    return f"It may grow: {risk}." if risk else ""


def less(net: str, discount: str) -> str:
    """A sum with what goes off it."""
    return f"{net} − {discount}"


def sum_heads(tax: str) -> list[str]:
    return ["variant", "works and parts", f"tax {tax}", "in all", "it may be"]


def terms(deposit: str) -> str:
    """What the owner is told of how it goes on."""
    return (
        f"{deposit} of it beforehand. Nothing is done, and nothing is billed, before you have said yes; "
        "what is found underway is asked for again."
    )


def part_words(label: str, count: str, price: str) -> str:
    """“1 × bridge blank 41, €9.00”."""
    return f"{count} × {label}, {price}"
