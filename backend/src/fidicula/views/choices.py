"""What forms offer, and words that every sheet shares and that are told once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.codes import MeasureCode, ToolCode
from fidicula.domain.tickets import next_ticket
from fidicula.judgement.measures import MEASURES
from fidicula.tables import figures
from fidicula.tables.parts import parts
from fidicula.tables.sound import act_choices
from fidicula.tables.work import OF_ONE, tools, works
from fidicula.tables.workflow import visit_kinds
from fidicula.views.sheet.model import Choice

MATERIALS = ("synthetic", "steel", "gut")


@dataclass(frozen=True)
class SizeChoice:
    family: str
    size: str


@dataclass(frozen=True)
class Stringing:
    family: str
    names: list[str]


@dataclass(frozen=True)
class ToolChoice:
    """is_for_heights : it reads how high a string stands, one way or the other."""

    tool: ToolCode
    label: str
    direction: str
    is_for_heights: bool


@dataclass(frozen=True)
class MeasureWords:
    """How a measure is taken, and how it usually goes wrong; the same in every sheet, and so told once."""

    measure: MeasureCode
    how: str
    slip: str


@dataclass(frozen=True)
class WorkChoice:
    """A work that can be recorded. part : of the instrument that it is done to, as it is called.

    for_many : it may be written down at many at once.  caution : what can hurt, and what helps; or that nothing can.
    """

    key: str
    label: str
    part: str
    for_many: bool
    caution: str


@dataclass(frozen=True)
class Choices:
    """What forms offer, and words that every sheet shares. tensions : that strings can have as a post is set.

    has_devices : simulated ones can send a reading here."""

    sizes: list[SizeChoice]
    stringings: list[Stringing]
    materials: list[str]
    tools: list[ToolChoice]
    works: list[WorkChoice]
    kinds: list[Choice]
    measures: list[MeasureWords]
    next_ticket: str
    tensions: list[Choice]
    has_devices: bool = False


def choices_of(tickets: Sequence[str], own_sizes: Sequence[tuple[str, str]]) -> Choices:
    """tickets : that there are already.  own_sizes : of the workshop, each with its family."""
    return Choices(
        sizes=[
            *(SizeChoice(size.family, size.size) for size in figures.sizes()),
            *(SizeChoice(family, size) for family, size in own_sizes),
        ],
        stringings=[
            Stringing(family, list(names))
            for family, by_count in figures.default_stringings().items()
            for names in by_count.values()
        ],
        materials=list(MATERIALS),
        tools=[
            ToolChoice(tool.tool, tool.label, tool.direction, tool.tool in MEASURES["end_height"].tools)
            for tool in tools().values()
        ],
        works=[
            WorkChoice(
                row.work,
                row.label,
                "Other" if row.part is None else parts()[row.part].label,
                row.work not in OF_ONE,
                row.caution,
            )
            for row in works().values()
            if row.at_bench
        ],
        kinds=[Choice(row.kind, row.label) for row in visit_kinds().values()],
        measures=[MeasureWords(row.measure, row.how, row.slip or "") for row in MEASURES.values()],
        next_ticket=next_ticket(tickets),
        tensions=[Choice(key, label) for key, label in act_choices()["tension"].items()],
    )
