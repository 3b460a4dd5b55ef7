"""Values that fit a JSON Schema, and dossiers of which some values are others that fit as well."""

from __future__ import annotations

import copy
import json
import random
import re
from collections.abc import Iterator, Mapping
from typing import Any
from uuid import UUID

Schema = Mapping[str, Any]
_UUID = re.compile(r"[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}")
_TIMES = (
    *("0001-01-01T00:00:00Z", "0001-01-01T00:00:00+14:00", "1899-12-31T23:59:59Z", "1900-01-01T00:00:00+14:00"),
    *("1970-01-01T00:00:00Z", "2026-03-29T02:30:00+01:00", "2026-11-20T10:00:00.123456Z", "2026-11-21T10:00:00+05:45"),
    *("2199-12-31T23:59:59Z", "9999-12-31T23:59:59Z", "9999-12-31T23:59:59-12:00"),
)
_DAYS = ("0001-01-01", "1900-01-01", "2024-02-29", "2026-11-20", "2027-06-01", "9999-12-31")
_TEXTS = (
    *(
        "",
        " ",
        "0",
        "-1",
        "1e308",
        "nan",
        "=1+1",
        "../..",
        "a\nb",
        "a\tb",
        "\u202eright to left",
        "e\u0301",
        "\U0001f3bb",
    ),
    *(
        "<b>x</b>",
        "%s %d {0}",
        "'; --",
        "ß" * 40,
        "ﬀ",
        "İ",
        "²",
        "½",
        "\u00a0",
        "\ufeff",
        "\u2028",
        "null",
        "true",
        "a\0b",
        "\ud800",
    ),
)
_NUMBERS = (0, -0.0, 1, -1, 0.1, 3.25, 27, 328, 1e-300, 5e-324, 1e15, 1e300, 1.7976931348623157e308)
_WHOLE = (0, 1, 2, 3, 4, 5, 6, 7, 99, 255, 32_767, 32_768, 2_147_483_647, 2_147_483_648, 9_223_372_036_854_775_807)
DEEPEST = 6


class Values:
    """By one schema and one chance. known : of each field, what the dossiers that it learnt from have there."""

    def __init__(self, schema: Schema, chance: random.Random, known: Mapping[str, list[Any]]) -> None:
        self._schema, self._chance, self._known = schema, chance, known
        self._defs: Mapping[str, Schema] = schema.get("$defs", {})

    def of(self, schema: Schema, name: str = "", depth: int = 0) -> Any:
        """A value that the schema allows for a field of this name."""
        schema = self.resolved(schema)
        if "anyOf" in schema:
            return self.of(self._chance.choice(schema["anyOf"]), name, depth)
        if "enum" in schema:
            return self._chance.choice(schema["enum"])
        if "const" in schema:
            return schema["const"]
        match schema.get("type"):
            case "object":
                return self._object(schema, depth)
            case "array":
                return self._array(schema, name, depth)
            case "string":
                return self._text(schema, name)
            case "integer":
                return self._number(schema, name, _WHOLE, whole=True)
            case "number":
                return self._number(schema, name, _NUMBERS, whole=False)
            case "boolean":
                return self._chance.random() < 0.5
            case "null":
                return None
        return self._chance.choice((None, True, 3, "x", [], {}))

    def resolved(self, schema: Schema) -> Schema:
        while "$ref" in schema:
            schema = self._defs[schema["$ref"].rpartition("/")[2]]
        return schema

    def whole(self) -> Any:
        """A dossier out of nothing but the schema."""
        return self.of(self._schema)

    def mangled(self, dossier: Any, others: list[Any]) -> Any:
        """The dossier with one to four of its values, lines or lists replaced."""
        found = copy.deepcopy(dossier)
        for _ in range(self._chance.choice((1, 1, 1, 2, 2, 3, 4))):
            holder, key, schema, name = self._chance.choice(list(self._places(found, self._schema)))
            self._replace(holder, key, schema, name)
        if self._chance.random() < 0.1:
            other = self._chance.choice(others)
            part = self._chance.choice(("string_sets", "visits", "instrument"))
            if part in other:
                found[part] = copy.deepcopy(other[part])
        return found

    def _replace(self, holder: Any, key: Any, schema: Schema, name: str) -> None:
        how, there = self._chance.random(), holder[key]
        if how < 0.15 and isinstance(there, list) and there:
            self._chance.shuffle(there)
        elif how < 0.3 and isinstance(there, list) and there:
            del there[self._chance.randrange(len(there)) :]
        elif how < 0.4 and isinstance(there, list) and there:
            again = json.dumps(self._chance.choice(there))
            # Another line with an id of its own, for a line stands once.
            there.append(json.loads(_UUID.sub(lambda _: self._id(), again, count=1)))
        elif how < 0.5 and isinstance(holder, dict) and isinstance(there, dict) and there:
            del there[self._chance.choice(list(there))]
        else:
            holder[key] = self.of(schema, name)

    def _places(self, value: Any, schema: Schema) -> Iterator[tuple[Any, Any, Schema, str]]:
        """Each value inside of one, with the schema that it stands under."""
        schema = self._fitting(schema, value)
        if isinstance(value, dict):
            named = schema.get("properties", {})
            rest = schema.get("additionalProperties")
            for name, part in value.items():
                below = named.get(name, rest if isinstance(rest, dict) else {})
                yield value, name, below, name
                yield from self._places(part, below)
        elif isinstance(value, list):
            below = schema.get("items", {})
            for i, part in enumerate(value):
                yield value, i, below, ""
                yield from self._places(part, below)

    def _fitting(self, schema: Schema, value: Any) -> Schema:
        schema = self.resolved(schema)
        for one in schema.get("anyOf", ()):
            branch = self.resolved(one)
            if (branch.get("type") == "null") == (value is None):
                return self._fitting(branch, value)
        return schema

    def _object(self, schema: Schema, depth: int) -> Any:
        if "properties" not in schema:
            rest = schema.get("additionalProperties")
            below = rest if isinstance(rest, dict) else {}
            return {
                str(self._text({}, "key")): self.of(below, "", depth + 1)
                for _ in range(self._chance.choice((0, 0, 1, 3)))
            }
        required = schema.get("required", ())
        return {
            name: self.of(part, name, depth + 1)
            for name, part in schema["properties"].items()
            if name in required or self._chance.random() < 0.6
        }

    def _array(self, schema: Schema, name: str, depth: int) -> Any:
        low = schema.get("minItems", 0)
        high = min(schema.get("maxItems", low + 3), low + 3)
        # Deep down a list is as short as it may be, or nothing would end.
        count = low if depth > DEEPEST else self._chance.randint(low, high)
        return [self.of(schema.get("items", {}), name, depth + 1) for _ in range(count)]

    def _text(self, schema: Schema, name: str) -> str:
        form, pattern = schema.get("format"), schema.get("pattern", "")
        if form == "uuid":
            return self._id()
        if form in ("date-time", "date"):
            known = self._known.get(name) if self._chance.random() < 0.5 else None
            return str(self._chance.choice(known or (_TIMES if form == "date-time" else _DAYS)))
        if "0-9a-f" in pattern:
            return f"{self._chance.getrandbits(256):064x}"
        if "audio" in pattern:
            return "audio/webm"
        if pattern:
            return self._chance.choice(("RW-9", "ß.-_9", "Ω1", "1..", "a" * 20, f"T{self._chance.randrange(10**6)}"))
        most = schema.get("maxLength", 400)
        least = schema.get("minLength", 0)
        if name in self._known and self._chance.random() < 0.5:
            text = str(self._chance.choice(self._known[name]))
        elif self._chance.random() < 0.2:
            text = "m" * most
        else:
            text = self._chance.choice(_TEXTS)
        return text[:most].ljust(least, "x")

    def _id(self) -> str:
        return str(UUID(int=self._chance.getrandbits(128)))

    def _number(self, schema: Schema, name: str, edges: tuple[float, ...], *, whole: bool) -> float:
        low = schema.get("minimum", schema.get("exclusiveMinimum", -1e308))
        high = schema.get("maximum", schema.get("exclusiveMaximum", 1.7976931348623157e308))
        known = [one for one in self._known.get(name, ()) if isinstance(one, int | float)]
        may = [one for one in (*edges, *known, low, high) if low <= one <= high]
        found = self._chance.choice(may or [low])
        return int(found) if whole else found


def learnt(dossiers: list[Any]) -> dict[str, list[Any]]:
    """By the name of a field, what stands there in any of them."""
    found: dict[str, set[Any]] = {}

    def look(value: Any) -> None:
        if isinstance(value, dict):
            for name, part in value.items():
                if isinstance(part, str | int | float) and not isinstance(part, bool):
                    found.setdefault(name, set()).add(part)
                look(part)
        elif isinstance(value, list):
            for part in value:
                look(part)

    look(dossiers)
    return {name: sorted(values, key=repr) for name, values in found.items()}


def renewed(dossier: Any, chance: random.Random) -> Any:
    """The same dossier with other ids, each for the same one everywhere."""
    ids: dict[str, str] = {}

    def other(found: re.Match[str]) -> str:
        return ids.setdefault(found[0], str(UUID(int=chance.getrandbits(128))))

    return json.loads(_UUID.sub(other, json.dumps(dossier)))
