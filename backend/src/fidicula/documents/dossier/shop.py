"""What the shop itself goes by, as the archive of a whole house carries it."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import Field

from fidicula.documents.dossier.instrument import StockItemLine, StringSetLine
from fidicula.documents.dossier.values import Amount, At, Detail, Line, Mm, Name, Number, Words


class FigureLine(Line):
    """A figure of the shop's own. withdrawn : from then on the starting figure stands again."""

    id: UUID
    family: Name
    size: Name
    measure: Name
    question: Name
    school: Name
    low: Mm | None
    aim: Mm | None
    high: Mm | None
    source: Words
    confirmed_by: Name | None
    withdrawn: bool
    entered_by: Name
    entered_at: At


class RecipeLine(Line):
    """A recipe. schools : by question."""

    id: UUID
    family: Name
    name: Name
    schools: Detail
    retired: bool
    entered_by: Name
    entered_at: At


class ShopRecipeLine(Line):
    """The recipe that a family follows."""

    id: UUID
    family: Name
    recipe: Name
    entered_by: Name
    entered_at: At


class ShelfLine(Line):
    """A short list of what lies on the shelf."""

    id: UUID
    list_name: Name
    family: Name
    values: list[Number]
    entered_by: Name
    entered_at: At


class OwnSizeLine(Line):
    """A size beyond those that come with the program."""

    family: Name
    size: Name
    entered_by: Name
    entered_at: At


class ToolCheckLine(Line):
    """A tool was checked. known, read : lengths and what it read of each; none where it was seen to read true."""

    id: UUID
    tool: Name
    known: list[Mm] = Field(default_factory=list)
    read: list[Mm] = Field(default_factory=list)
    checked_by: Name
    checked_at: At


class SettingLine(Line):
    """A setting of the shop."""

    id: UUID
    setting: Name
    value: Name
    entered_by: Name
    entered_at: At


class StockEntryLine(Line):
    """A count that came or went, or a price from then on."""

    id: UUID
    item_id: UUID
    what: Name
    value: Amount
    reason: Words
    entered_by: Name
    entered_at: At


class PointLine(Line):
    """A point of the shop's checklist."""

    id: UUID
    point: Name
    label: Words
    look: Words
    means: Words
    families: list[Name]
    place: Annotated[int, Field(ge=-1_000_000, le=1_000_000)]
    retired: bool
    entered_by: Name
    entered_at: At


class Shop(Line):
    """What the shop goes by. People, their passwords and sign-ins are not part of it: a backup holds those."""

    string_sets: list[StringSetLine] = Field(default_factory=list)
    stock_items: list[StockItemLine] = Field(default_factory=list)
    stock_entries: list[StockEntryLine] = Field(default_factory=list)
    figures: list[FigureLine] = Field(default_factory=list)
    recipes: list[RecipeLine] = Field(default_factory=list)
    shop_recipes: list[ShopRecipeLine] = Field(default_factory=list)
    shelf: list[ShelfLine] = Field(default_factory=list)
    own_sizes: list[OwnSizeLine] = Field(default_factory=list)
    tool_checks: list[ToolCheckLine] = Field(default_factory=list)
    settings: list[SettingLine] = Field(default_factory=list)
    checklist: list[PointLine] = Field(default_factory=list)
