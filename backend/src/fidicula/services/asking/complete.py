"""What could come next in a question that is being typed."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from fidicula.domain.asking import Vocabulary
from fidicula.words import asking as say

MOST = 8


@dataclass(frozen=True)
class Completion:
    """line : the whole line, completed.  adds : what would be typed.  kind : family, measure, work, visit or word."""

    line: str
    adds: str
    kind: str


def completions(line: str, vocabulary: Vocabulary) -> list[Completion]:
    """Phrases that begin with what is being typed, and what follows a measure or a work that stands there."""
    found: list[Completion] = []
    for adds, kind, rest in _offers(line, vocabulary):
        one = Completion(f"{rest}{adds} ", adds, kind)
        if one not in found:
            found.append(one)
        if len(found) == MOST:
            break
    return found


def _offers(line: str, vocabulary: Vocabulary) -> Iterator[tuple[str, str, str]]:
    """What could be added, of which kind, and what stands before it."""
    lower = line.lower()
    said = lower.rstrip()
    if lower.endswith(" ") and said:
        yield from ((adds, "word", f"{said} ") for adds in _follows(said, vocabulary))
    words = lower.split(" ")
    # The longest beginning of a phrase that is being typed comes first.
    for count in range(min(5, len(words)), 0, -1):
        begun = " ".join(words[-count:])
        rest = line[: len(line) - len(begun)]
        if not begun.strip() and line.strip():
            continue
        for kind, phrases in _phrases(vocabulary):
            yield from ((phrase, kind, rest) for phrase in _starting(phrases, begun))


def _follows(said: str, vocabulary: Vocabulary) -> tuple[str, ...]:
    if any(said.endswith(phrase) for phrase in vocabulary.measures):
        return say.AFTER_MEASURE
    if any(said.endswith(phrase) for phrase in vocabulary.works):
        return say.AFTER_WORK
    return say.AFTER_DUE if said.endswith("due") else ()


def _phrases(vocabulary: Vocabulary) -> Iterator[tuple[str, Iterable[str]]]:
    yield "family", [one for one in vocabulary.families if one.endswith("s")]
    yield "measure", [one for one in vocabulary.measures if "_" not in one]
    yield "work", [one for one in vocabulary.works if "_" not in one]
    yield "visit", vocabulary.kinds
    yield "word", say.STARTS


def _starting(phrases: Iterable[str], begun: str) -> list[str]:
    """By length: what is said most simply comes first."""
    return sorted((one for one in phrases if one.startswith(begun) and one != begun.strip()), key=len)
