"""Refusals: one form for the HTTP interface and the command line, in sentences that a luthier understands."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from pydantic import BaseModel, ValidationError
from pydantic_core import ErrorDetails

from fidicula.core.errors import CoreError


class RefusalItem(BaseModel):
    """loc : from `body` down to the very field.  msg : what is wrong and what would do."""

    loc: list[str | int]
    msg: str
    type: str


class Refusal(Exception):
    """An input that is not computed with; `items` says why, field by field."""

    def __init__(self, items: Sequence[RefusalItem]) -> None:
        super().__init__("; ".join(item.msg for item in items))
        self.items = list(items)

    def __reduce__(self) -> tuple[type[Refusal], tuple[list[RefusalItem]]]:
        """It comes whole out of another process."""
        return Refusal, (self.items,)

    def under(self, *prefix: str | int) -> Refusal:
        """The same refusal with `prefix` after `body`: for an item of a list."""
        return Refusal([item.model_copy(update={"loc": ["body", *prefix, *item.loc[1:]]}) for item in self.items])

    def as_json(self) -> dict[str, Any]:
        return {"detail": [item.model_dump() for item in self.items]}


def malformed(msg: str) -> Refusal:
    return Refusal([RefusalItem(loc=["body"], msg=msg, type="malformed")])


def from_core(error: CoreError) -> Refusal:
    """A refusal by the core: the shape cannot be."""
    return Refusal([RefusalItem(loc=["body", *error.path], msg=error.sentence, type="cannot_be")])


def from_validation(error: ValidationError) -> Refusal:
    """A refusal of types and ranges."""
    return Refusal([item_of(details) for details in error.errors(include_url=False)])


def item_of(details: ErrorDetails, root: str = "body") -> RefusalItem:
    """One fault that pydantic found, in our words; `root` is where the input came in."""
    loc = without_tags(details["loc"])
    return RefusalItem(loc=[root, *loc], msg=sentence({**details, "loc": loc}), type=details["type"])


def without_tags(loc: tuple[str | int, ...]) -> tuple[str | int, ...]:
    """A path without the tags of choices: the field of a rule stands under the rule, not under the rule's name."""
    kept: list[str | int] = []
    for before, part in zip((None, *loc), loc, strict=False):
        if isinstance(before, str) and before.endswith("_rule") and isinstance(part, str):
            continue
        kept.append(part)
    return tuple(kept)


def out_of_all_measure(data: object) -> Refusal:
    """For input in its ranges whose answer no number can hold: the field that is nearest to nothing is at fault."""
    loc, value = min(_numbers(data, ()), key=lambda found: abs(found[1]), default=((), 0.0))
    msg = f"{words(loc)} is too small to compute with; it was {value:g}"
    return Refusal([RefusalItem(loc=["body", *loc], msg=msg, type="out_of_all_measure")])


def _numbers(value: object, loc: tuple[str | int, ...]) -> Iterator[tuple[tuple[str | int, ...], float]]:
    match value:
        case bool():
            return
        case float() | int() if value != 0:
            yield loc, float(value)
        case dict():
            for name, item in value.items():
                yield from _numbers(item, (*loc, name))
        case list():
            for index, item in enumerate(value):
                yield from _numbers(item, (*loc, index))


def words(loc: Sequence[str | int]) -> str:
    """A field's path as one would say it: ('strings', 2, 'nut_height') -> 'nut height (the 3rd of strings)'."""
    if not loc:
        return "the input"
    said = ""
    for part in loc:
        if isinstance(part, int):
            ordinal = {1: "1st", 2: "2nd", 3: "3rd"}.get(part + 1, f"{part + 1}th")
            said = f"the {ordinal} of {said}"
        else:
            name = part.replace("_", " ")
            said = f"{name} ({said})" if said else name
    return said


def sentence(details: ErrorDetails) -> str:
    """What is wrong and what would do, as one sentence."""
    what = words(details["loc"])
    limits = details.get("ctx", {})
    was = _shown(details["input"])
    match details["type"]:
        case "missing":
            return f"{what} is needed and was not given"
        case "extra_forbidden":
            return f"{what} is not a field of this computation: check its spelling, or leave it out"
        case "float_type" | "int_type":
            return f"{what} must be a plain number, without quotes; it was {was}"
        case "finite_number":
            return f"{what} must be a finite number; it was {was}"
        case "greater_than":
            return f"{what} must be over {_limit(limits['gt'])}; it was {was}"
        case "greater_than_equal":
            return f"{what} must be at least {_limit(limits['ge'])}; it was {was}"
        case "less_than":
            return f"{what} must be under {_limit(limits['lt'])}; it was {was}"
        case "less_than_equal":
            return f"{what} must be at most {_limit(limits['le'])}; it was {was}"
        case "literal_error":
            return f"{what} must be {limits['expected']}; it was {was}"
        case "list_type":
            return f"{what} must be a list; it was {was}"
        case "too_short":
            return f"{what} needs at least {limits['min_length']} items; it has {limits['actual_length']}"
        case "too_long":
            return f"{what} takes at most {limits['max_length']} items; it has {limits['actual_length']}"
        case "string_type":
            return f"{what} must be text in quotes; it was {was}"
        case "union_tag_invalid" | "union_tag_not_found":
            return f"{what} must name its rule: one of {limits.get('expected_tags', 'those of this computation')}"
        case "model_type" | "model_attributes_type" | "dict_type":
            return f"{what} must be an object with named fields; it was {was}"
    return f"{what}: {details['msg'].lower()}"


def _limit(value: object) -> str:
    return f"{value:g}" if isinstance(value, float | int) else str(value)


def _shown(value: object) -> str:
    match value:
        case bool() | None:
            return {True: "true", False: "false", None: "null"}[value]
        case float():
            return f"{value:g}"
        case int() if abs(value) > 10**15:
            return "too large"
        case int():
            return str(value)
        case str():
            return f'"{value[:40]}"'
        case list():
            return "a list"
        case dict():
            return "an object"
    return "something else"
