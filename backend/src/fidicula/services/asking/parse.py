"""A line of words read into conditions: “cellos with projection under 78”, “posts moved twice this year”."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from datetime import date
from difflib import get_close_matches
from typing import TypeVar

from fidicula.codes import MeasureCode
from fidicula.core.readings.plain import plain_number, whole_number
from fidicula.domain.asking import (
    CameFor,
    Condition,
    HasWords,
    IsDue,
    IsHere,
    Measured,
    OfFamily,
    OfSize,
    TensionChanged,
    Vocabulary,
    WasDone,
)
from fidicula.domain.errors import RefusedError
from fidicula.services.asking.days import ahead_at, stretch_at
from fidicula.words import asking as say

FILLERS = frozenset(
    {
        *("with", "and", "that", "have", "has", "had", "which", "whose", "were", "was", "is", "are", "of", "a", "an"),
        *("its", "all", "instruments", "for", "their", "on", "the"),
    }
)
"""Words that say nothing by themselves."""
FIELDS = ("owner", "ticket", "size", "strings", "family", "kind")
UNDER, OVER = ("under", "below", "<"), ("over", "above", ">")
_COUNTS = {"once": 1, "twice": 2, "thrice": 3}
_TOKEN = re.compile(r'(\w+):(?:"([^"]*)"|([^\s"]+))|"([^"]*)"|([<>=])|([^\s<>="]+)')
_SIZE = re.compile(r"\d{1,2}/\d{1,2}|\d{3}")
"""A size, or a body's length in mm."""


@dataclass(frozen=True)
class _Token:
    """A word, or a field with its words. start : where it stands in the line."""

    word: str
    field: str
    start: int


def parse(line: str, vocabulary: Vocabulary, *, today: date) -> list[Condition]:
    """The conditions that a line says, in its order; all of them are to hold.

    line : as typed.  vocabulary : what it can name.  today : where the shop is, for “this year” and “since June”.
    Raises RefusedError naming `words` for a word that means nothing, saying which, and what it may have been.
    Source: none, it is this program's own.
    """
    return list(_Reader(line, vocabulary, today).conditions())


Meant = TypeVar("Meant", bound=str)


class _Reader:
    def __init__(self, line: str, vocabulary: Vocabulary, today: date) -> None:
        self._tokens = _tokens(line)
        self._words = [token.word for token in self._tokens]
        self._vocabulary, self._today = vocabulary, today
        self._at = 0

    def conditions(self) -> Iterator[Condition]:
        while self._at < len(self._tokens):
            token = self._tokens[self._at]
            if token.field:
                self._at += 1
                yield self._of_field(token)
                continue
            if token.word in FILLERS:
                self._at += 1
                continue
            yield self._condition(token)

    def _of_field(self, token: _Token) -> Condition:
        if token.field == "quoted":
            return HasWords("", token.word)
        if token.field not in FIELDS:
            raise self._refused(token.field, FIELDS)
        if token.field == "family":
            family = self._vocabulary.families.get(token.word)
            if family is None:
                raise self._refused(token.word, self._vocabulary.families)
            return OfFamily((family,))
        return OfSize(token.word) if token.field == "size" else HasWords(token.field, token.word)

    def _condition(self, token: _Token) -> Condition:
        for read in (self._house, self._due, self._tension, self._family, self._done, self._measured, self._came):
            before = self._at
            found = read()
            if found is not None:
                return found
            self._at = before
        if _SIZE.fullmatch(token.word):
            self._at += 1
            return OfSize(token.word)
        raise self._refused(token.word, self._known())

    def _house(self) -> Condition | None:
        if self._takes("in", "the", "house") or self._takes("in", "house") or self._takes("here"):
            return IsHere(is_here=True)
        if self._takes("handed", "over") or self._takes("gone") or self._takes("at", "home"):
            return IsHere(is_here=False)
        return None

    def _due(self) -> Condition | None:
        if self._takes("overdue"):
            return IsDue(None, self._today)
        if not self._takes("due"):
            return None
        ahead = ahead_at(self._words[self._at :], self._today)
        if ahead is None:
            return IsDue(None, self._today)
        self._at += ahead.took
        assert ahead.until is not None
        return IsDue(ahead.since, ahead.until)

    def _tension(self) -> Condition | None:
        if not (self._takes("tension", "changed") or self._takes("tensions", "changed")):
            return None
        since, _ = self._stretch()
        return TensionChanged(since)

    def _family(self) -> Condition | None:
        found = self._phrase(self._vocabulary.families)
        if found is None:
            return None
        families = [found]
        while self._at + 1 < len(self._words) and self._words[self._at] in ("and", "or"):
            back = self._at
            self._at += 1
            another = self._phrase(self._vocabulary.families)
            if another is None:
                self._at = back
                break
            families.append(another)
        return OfFamily(tuple(families))

    def _done(self) -> Condition | None:
        never = self._takes("no") or self._takes("never") or self._takes("without")
        work = self._phrase(self._vocabulary.works)
        if work is None:
            return None
        least, most = (0, 0) if never else self._count()
        since, until = self._stretch()
        return WasDone(work, least, most, since, until)

    def _count(self) -> tuple[int, int | None]:
        """How many times at least, and at most; once or more where nothing is said."""
        at_least = self._takes("at", "least") or self._takes("more", "than")
        word = self._words[self._at] if self._at < len(self._words) else ""
        if word in _COUNTS:
            self._at += 1
            return _COUNTS[word], None
        following = self._words[self._at + 1] if self._at + 1 < len(self._words) else ""
        count = whole_number(word)
        if count is not None and following in ("time", "times"):
            self._at += 2
            return min(count, 1000), None
        if at_least:
            self._at -= 2
        return 1, None

    def _measured(self) -> Condition | None:
        place = ""
        for ahead in (0, 1):
            back = self._at
            if ahead:
                place, self._at = self._words[self._at], self._at + 1
            measure = self._phrase(self._vocabulary.measures) if self._at < len(self._words) else None
            if measure is not None and (not place or place in self._places(measure)):
                return self._compared(measure, place)
            self._at = back
        return None

    def _places(self, measure: MeasureCode) -> tuple[str, ...]:
        return tuple(name.lower() for name in self._vocabulary.places.get(measure, ()))

    def _compared(self, measure: MeasureCode, place: str) -> Condition:
        said = " ".join(self._words[: self._at])
        if not place and self._at < len(self._words) and self._words[self._at] in self._places(measure):
            place, self._at = self._words[self._at], self._at + 1
        name = next((one for one in self._vocabulary.places.get(measure, ()) if one.lower() == place), "")
        if self._takes("between") or self._takes("from"):
            low = self._number(said)
            if not (self._takes("and") or self._takes("to")):
                raise RefusedError(f"between two values stands “and”: {said} between 77 and 79", field="words")
            return Measured(measure, name, low, self._number(said), is_strict=False)
        if self._takes("less", "than") or any(self._takes(word) for word in UNDER):
            return Measured(measure, name, None, self._number(said))
        if self._takes("more", "than") or any(self._takes(word) for word in OVER):
            return Measured(measure, name, self._number(said), None)
        if self._takes("at", "least"):
            return Measured(measure, name, self._number(said), None, is_strict=False)
        if self._takes("at", "most"):
            return Measured(measure, name, None, self._number(said), is_strict=False)
        if self._takes("="):
            value = self._number(said)
            return Measured(measure, name, value, value, is_strict=False)
        return Measured(measure, name, None, None, is_strict=False)

    def _number(self, said: str) -> float:
        word = self._words[self._at] if self._at < len(self._words) else ""
        value = plain_number(word.removesuffix("mm"))
        if value is None:
            raise RefusedError(f"after “{said}” comes a value, for instance {said} under 78", field="words")
        self._at += 1
        if self._at < len(self._words) and self._words[self._at] in ("mm", "°", "%"):
            self._at += 1
        return value

    def _came(self) -> Condition | None:
        kind = self._phrase(self._vocabulary.kinds)
        if kind is None:
            return None
        since, until = self._stretch()
        return CameFor(kind, since, until)

    def _stretch(self) -> tuple[date | None, date | None]:
        found = stretch_at(self._words[self._at :], self._today)
        if found is None:
            return None, None
        self._at += found.took
        return found.since, found.until

    def _takes(self, *words: str) -> bool:
        """Whether these words come next; then they are read."""
        if tuple(self._words[self._at : self._at + len(words)]) != words:
            return False
        if any(token.field for token in self._tokens[self._at : self._at + len(words)]):
            return False
        self._at += len(words)
        return True

    def _phrase(self, phrases: Mapping[str, Meant]) -> Meant | None:
        """What the longest phrase that comes next means."""
        for count in range(min(6, len(self._words) - self._at), 0, -1):
            said = " ".join(self._words[self._at : self._at + count])
            if said in phrases:
                self._at += count
                return phrases[said]
        return None

    def _known(self) -> list[str]:
        v = self._vocabulary
        phrases = [one for known in (v.families, v.measures, v.works, v.kinds) for one in known]
        words = {word for phrase in phrases for word in phrase.split()}
        return sorted(words | {"due", "overdue", "since", "under", "over", "between", "tension", *FIELDS})

    def _refused(self, word: str, known: Iterable[str]) -> RefusedError:
        close = get_close_matches(word, list(known), n=1)
        return RefusedError(say.unknown(word, close[0] if close else ""), field="words")


def _tokens(line: str) -> list[_Token]:
    found = []
    for match in _TOKEN.finditer(line):
        name, quoted, plain, alone, sign, word = match.groups()
        if name is not None:
            found.append(_Token((quoted if plain is None else plain).lower(), name.lower(), match.start()))
        elif alone is not None:
            found.append(_Token(alone.lower(), "quoted", match.start()))
        else:
            found.append(_Token((sign or word).lower().rstrip(",;.?"), "", match.start()))
    return [token for token in found if token.word]
