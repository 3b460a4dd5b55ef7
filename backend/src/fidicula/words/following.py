"""Where a target comes from, in words."""

from __future__ import annotations

from collections.abc import Mapping

from fidicula.codes import MeasureCode
from fidicula.judgement.targets.sources import ANOTHER, AS_FOUND, EARLIER_VISIT
from fidicula.words.names import of_all


def source_words(measure: MeasureCode, source: Mapping[str, str]) -> str:
    """“heights at the nut as found at this visit”."""
    return f"{of_all(measure)} {SOURCE_WORDS[source['from']].format(of=source.get('of', ''))}"


SOURCE_WORDS = {
    AS_FOUND: "as found at this visit",
    EARLIER_VISIT: "as at an earlier visit",
    ANOTHER: "as {of} stands",
}
