"""Where a target comes from, in words."""

from __future__ import annotations

from collections.abc import Mapping

from fidicula.services.phrasing.names import of_all
from fidicula.services.targets.sources import SOURCE_WORDS


def source_words(measure: str, source: Mapping[str, str]) -> str:
    """“heights at the nut as found at this visit”."""
    return f"{of_all(measure)} {SOURCE_WORDS[source['from']].format(of=source.get('of', ''))}"
