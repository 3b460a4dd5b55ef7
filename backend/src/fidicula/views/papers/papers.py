"""The papers of an instrument, each as plain values for the screen and as a PDF."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from datetime import date
from typing import Literal, get_args

from fidicula.codes import MeasureCode
from fidicula.documents.paper.model import Block, Grid, Heading, Paper, Pictures, Points, Sign, Text
from fidicula.judgement.assessment.damage import damage_marks
from fidicula.tables.leaving import care
from fidicula.tables.signs import items
from fidicula.views.handover import Checklist
from fidicula.views.papers import sketches
from fidicula.views.papers.source import PaperSource
from fidicula.views.papers.tables import compared, measured
from fidicula.words import damage as about
from fidicula.words import papers as say

PaperKind = Literal["setup", "condition", "compared", "owner", "ticket", "label"]
KINDS: tuple[PaperKind, ...] = get_args(PaperKind)
_TICKET, _LABEL = (90.0, 60.0), (90.0, 36.0)
"""Of the page. [mm]"""


def _setup(source: PaperSource) -> Paper:
    """As the instrument is: measured, wanted, drawn, done, checked and signed."""
    sheet = source.sheet
    set_name = "" if sheet.strings is None else sheet.strings.name
    blocks: list[Block] = [
        Text(say.set_and_recipe(set_name, sheet.recipe.name, sheet.recipe.own)),
        *sketches.bridge(source),
        *sketches.heights(source),
        *measured(source),
        Heading(say.DONE),
        Text(say.done(source.done_labels)) if source.done else Text(say.NOTHING_DONE),
        *_damage(source),
        *_decided(source.checklist),
        *_open(source.checklist),
        *_checked(source.checklist),
        *_signed(source.checklist),
    ]
    return _sheet(source, "setup", blocks)


def _condition(source: PaperSource) -> Paper:
    """What is damaged, as it was found: numbered as on the map, with photographs, to be signed at the door."""
    marks = damage_marks(source.loaded.damage)
    if not marks:
        return _sheet(source, "condition", [Text(about.NOTHING), Sign(say.SEEN_BY_OWNER)])
    rows = [
        [str(place), mark.kind.label, about.where(mark.last), about.how(mark), about.seen_line(mark.last).split(":")[0]]
        for place, mark in enumerate(marks, 1)
    ]
    shown = {mark.thing: place for place, mark in enumerate(marks, 1)}
    pictures = [photo for photo in source.photos if photo.thing in shown]
    words = [f"{shown[photo.thing]}: {photo.words}".rstrip(": ") for photo in pictures if photo.thing is not None]
    signed = [one for one in source.damage_signed if one.visit_id == source.assessment.visit.id]
    blocks: list[Block] = [
        Grid(say.CONDITION_HEADS, rows, widths=(0.5, 1.4, 3, 2.4, 1.6)),
        Text(say.CONDITION, small=True),
        *([Pictures([str(photo.id) for photo in pictures], words)] if pictures else []),
        *(Sign(f"{say.SEEN_BY_OWNER}: {one.who}", one.signature) for one in signed),
        *([] if signed else [Sign(say.SEEN_BY_OWNER)]),
    ]
    return _sheet(source, "condition", blocks)


def _damage(source: PaperSource) -> list[Block]:
    lines = [about.line(place, mark) for place, mark in enumerate(damage_marks(source.loaded.damage), 1)]
    return [Heading(say.DAMAGE), Points(lines)] if lines else []


def _compared(source: PaperSource) -> Paper:
    blocks: list[Block] = [
        *compared(source),
        Heading(say.DONE),
        Text(say.done(source.done_labels)) if source.done else Text(say.NOTHING_DONE),
        *_photos(source),
    ]
    return _sheet(source, "compared", blocks)


def _owner(source: PaperSource) -> Paper:
    """In plain words: what was done, how it stands, what was left and why, how to keep it, when to come again."""
    seal = source.checklist.seal
    when = source.checklist.proposed_check if seal is None else seal.next_check
    why = source.checklist.proposed_why if seal is None else seal.next_check_why
    done, family = set(source.done), source.instrument.family
    left = [
        say.left_open(one.label, one.means, one.reason)
        for one in source.checklist.points
        if one.is_open and (one.group != "pitch" or one.state == "not_right")
    ]
    as_found = source.checklist.left_as_found
    blocks: list[Block] = [
        Heading(say.WHAT_WE_DID),
        Text(say.done(source.done_labels)) if source.done else Text(say.LOOKED),
        Heading(say.HOW_IT_STANDS),
        *(Text(line) for line in _stands(source)),
        *_left([*([as_found] if as_found else []), *left]),
        Heading(say.CARE),
        Points([row.says for row in care() if row.is_said(done, family, source.assessment.signs)]),
        Heading(say.NEXT),
        Text(say.next_check(when, why), strong=True),
        Text(say.CAUTION, small=True),
        *([Text(source.shop("shop_contact"))] if source.shop("shop_contact") else []),
        *_signed(source.checklist),
    ]
    return _sheet(source, "owner", blocks)


def _left(lines: list[str]) -> list[Block]:
    return [Heading(say.LEFT), Points(lines)] if lines else []


def _stands(source: PaperSource) -> list[str]:
    state, names = source.assessment.state, source.instrument.string_names
    last = len(names) - 1
    ends = [state.reading_states.get(("end_height", i)) for i in (0, last)]
    values = [None if one is None else one.usable for one in ends]
    found = []
    if values[0] is not None and values[1] is not None:
        bridge = next(part for part in source.assessment.parts if part.part == "bridge")
        found += [say.heights(names, values[0], values[1]), say.in_band(not bridge.is_open)]
    said: tuple[tuple[MeasureCode, Callable[[float], str]], ...] = (
        ("projection", say.projection),
        ("humidity", say.humidity),
    )
    for measure, words in said:
        stand = state.reading_states.get((measure, None))
        if stand is not None and stand.usable is not None:
            found.append(words(stand.usable))
    return found or [say.NOTHING_READ]


def _ticket(source: PaperSource) -> Paper:
    """For the instrument's neck while it is here; its code opens it on a telephone."""
    instrument, visit = source.instrument, source.assessment.visit
    address = f"{source.address}/bench/{instrument.ticket}" if source.address else instrument.ticket
    blocks: list[Block] = [
        Text(" ".join(one for one in (instrument.family, instrument.size, instrument.owner) if one)),
        *(Text(line, small=True) for line in say.on_ticket(visit.promised, visit.deadline)),
        sketches.code(address, instrument.ticket, across=0.4),
    ]
    return Paper("ticket", instrument.ticket, [], blocks, _TICKET, file=f"{instrument.ticket} ticket")


def _label(source: PaperSource) -> Paper:
    """For the case: how it was set up, when, and when it comes again."""
    state, instrument = source.assessment.state, source.instrument
    length = state.reading_states.get(("string_length", None))
    stands = [state.reading_states.get(("end_height", i)) for i in range(state.count)]
    heights = [one.usable for one in stands if one is not None and one.usable is not None]
    lines = say.label_lines(
        "" if state.string_set is None else state.string_set.name,
        None if length is None else length.usable,
        heights if len(heights) == state.count else [],
        instrument.string_names,
    )
    seal = source.checklist.seal
    dates = say.label_dates(*_set_up_on(source), None if seal is None else seal.next_check)
    blocks: list[Block] = [
        Text(f"{instrument.family} {instrument.size}"),
        *(Text(line) for line in lines),
        *(Text(line, small=True) for line in dates),
    ]
    return Paper("label", instrument.ticket, [], blocks, _LABEL, file=f"{instrument.ticket} label")


def _set_up_on(source: PaperSource) -> tuple[bool, date | None]:
    """Whether anything was done to it, and when it was as the label says: signed, last worked at, else last read."""
    seal = source.checklist.seal
    done = [work.done_at for work in source.assessment.state.standing_works if work.work != "strings_named"]
    read = [reading.taken_at for reading in source.loaded.readings if reading.corrected_by is None]
    moments = [seal.signed_at] if seal is not None else done or read
    return bool(done), max(moments).astimezone().date() if moments else None


def _sheet(source: PaperSource, kind: PaperKind, blocks: list[Block]) -> Paper:
    instrument, title = source.instrument, say.TITLES[kind]
    return Paper(
        kind=kind,
        title=title,
        subject=say.subject(instrument, source.when),
        blocks=blocks,
        foot=say.foot(source.shop("shop_name"), instrument.ticket, title),
        file=f"{instrument.ticket} {title.lower()}",
    )


def _decided(checklist: Checklist) -> list[Block]:
    lines = [f"{one.label}: {one.evidence[0].says}" for one in checklist.points if one.group == "decided"]
    return [Heading(say.DECIDED), Points(lines)] if lines else []


def _open(checklist: Checklist) -> list[Block]:
    lines = [
        say.left_open(one.label, one.says if one.group == "part" else one.means, one.reason)
        for one in checklist.points
        if one.is_open and one.state != "unchecked"
    ]
    return [Heading(say.OPEN), Points(lines)] if lines else []


def _checked(checklist: Checklist) -> list[Block]:
    points = [one for one in checklist.points if one.group == "pitch"]
    if not points:
        return []
    lines = [say.pitch_line(one.label, one.by) for one in points]
    return [Heading(say.CHECKED), Points(lines, [one.state == "right" for one in points])]


def _signed(checklist: Checklist) -> list[Block]:
    seal = checklist.seal
    if seal is None:
        return [Text(say.DRAFT, small=True), Sign(say.signed_by("")), Sign(say.taken_by(""))]
    return [
        Text(say.sealed(seal.short, seal.signed_by, seal.signed_at.astimezone().date()), small=True),
        Sign(say.taken_by(seal.received_by), seal.signature),
    ]


def _photos(source: PaperSource) -> list[Block]:
    """Of each item the first and the last photograph of this visit, side by side."""
    by_item: dict[str, list[int]] = {}
    for i, photo in enumerate(source.photos):
        by_item.setdefault(photo.item, []).append(i)
    chosen = [source.photos[i] for found in by_item.values() for i in dict.fromkeys((found[0], found[-1]))]
    if not chosen:
        return []
    labels = [items()[one.item].label if one.item in items() else one.item for one in chosen]
    words = [
        say.photo_of(label, one.words, one.taken_at.astimezone().date())
        for label, one in zip(labels, chosen, strict=True)
    ]
    return [Pictures([str(one.id) for one in chosen], words)]


BUILDERS: Mapping[str, Callable[[PaperSource], Paper]] = {
    "setup": _setup,
    "condition": _condition,
    "compared": _compared,
    "owner": _owner,
    "ticket": _ticket,
    "label": _label,
}
