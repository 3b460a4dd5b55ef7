"""What the shop goes by: its figures and its recipes. Both are logs; the newest line of a key stands."""

from __future__ import annotations

from sqlalchemy import Connection, bindparam, select
from sqlalchemy.dialects.postgresql import distinct_on
from sqlalchemy.dialects.postgresql import insert as upsert

from fidicula.codes import MeasureCode
from fidicula.db import schema
from fidicula.db.once import add_once
from fidicula.domain.targets import FigureEntry, RecipeEntry

_figure, _recipe, _default = schema.figure_entry, schema.recipe_entry, schema.shop_recipe
_FIGURE_KEY = ("family", "size", "measure", "question", "school")
_KEY = tuple(_figure.c[name] for name in _FIGURE_KEY)
_FIGURE = [column for column in _figure.c if column.name != "number"]
_RECIPE = [column for column in _recipe.c if column.name != "number"]

_FIGURES_IN_FORCE = (
    select(*_FIGURE)
    .ext(distinct_on(*_KEY))
    .where(_figure.c.family.in_([bindparam("family"), ""]))
    .order_by(*_KEY, _figure.c.number.desc())
)

_RECIPES_IN_FORCE = (
    select(*_RECIPE)
    .ext(distinct_on(_recipe.c.name))
    .where(_recipe.c.family == bindparam("family"))
    .order_by(_recipe.c.name, _recipe.c.number.desc())
)

_SHOP_RECIPE = (
    select(_default.c.recipe)
    .where(_default.c.family == bindparam("family"))
    .order_by(_default.c.number.desc())
    .limit(1)
)


RULES_STAMP = select(schema.rules_stamp.c.stamp).scalar_subquery()
"""Changed by triggers, one commit after the other, with every entry of what the shop goes by."""


class ShopRules:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def stamp(self) -> int:
        """Another one after every entry: while it stays, so does all that the shop goes by."""
        return int(self._connection.execute(select(RULES_STAMP)).scalar_one())

    def figures(self, family: str) -> list[FigureEntry]:
        """The newest entry of every key of a family, withdrawn ones left out."""
        rows = self._connection.execute(_FIGURES_IN_FORCE, {"family": family})
        return [FigureEntry(**row._mapping) for row in rows if not row.withdrawn]

    def figure_history(
        self, *, family: str, size: str, measure: MeasureCode, question: str, school: str
    ) -> list[FigureEntry]:
        """Every entry of one key, newest first."""
        values = (family, size, measure, question, school)
        rows = self._connection.execute(
            select(*_FIGURE)
            .where(*(column == value for column, value in zip(_KEY, values, strict=True)))
            .order_by(_figure.c.number.desc())
        )
        return [FigureEntry(**row._mapping) for row in rows]

    def add_figure(self, new: FigureEntry) -> None:
        """Add an entry; one of this id that is there already stays as it is."""
        values = {name: value for name, value in vars(new).items() if name != "entered_at"}
        add_once(self._connection, _figure, values, same=_FIGURE_KEY)

    def recipes(self, family: str) -> list[RecipeEntry]:
        """The newest entry of every name, by name; retired ones too, for they hide a shipped one."""
        rows = self._connection.execute(_RECIPES_IN_FORCE, {"family": family})
        return [RecipeEntry(**row._mapping) for row in rows]

    def add_recipe(self, new: RecipeEntry) -> None:
        """Add an entry; one of this id that is there already stays as it is."""
        values = {name: value for name, value in vars(new).items() if name != "entered_at"}
        values["schools"] = dict(new.schools)
        add_once(self._connection, _recipe, values, same=("family", "name"))

    def shop_recipe(self, family: str) -> str | None:
        """The recipe that a family follows unless an instrument has its own; None until the shop chose one."""
        return self._connection.execute(_SHOP_RECIPE, {"family": family}).scalar_one_or_none()

    def set_shop_recipe(self, *, id: object, family: str, recipe: str, by: str) -> None:
        values = {"id": id, "family": family, "recipe": recipe, "entered_by": by}
        add_once(self._connection, _default, values, same=("family", "recipe"))

    def own_sizes(self) -> list[tuple[str, str]]:
        """Family and size of what the shop has had to do with beyond the sizes that come with the program."""
        rows = self._connection.execute(
            select(schema.own_size.c.family, schema.own_size.c.size).order_by(schema.own_size.c.number)
        )
        return [(row.family, row.size) for row in rows]

    def add_own_size(self, *, family: str, size: str, by: str) -> None:
        """Add a size; one that is there already stays."""
        self._connection.execute(
            upsert(schema.own_size)
            .values(family=family, size=size, entered_by=by)
            .on_conflict_do_nothing(index_elements=["family", "size"])
        )
