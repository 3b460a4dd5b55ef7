"""The strings that a page computes with: on the instrument, or another set from the shelf that is tried."""

from __future__ import annotations

from dataclasses import dataclass

from fidicula.core.mechanics.load import tension_at, tension_of_density
from fidicula.domain.strings import SetString, StringSet
from fidicula.tables.figures import string_pitches
from fidicula.views.pages.bench import PageBench
from fidicula.views.pages.model import HandleChoice
from fidicula.words.pages import stringing as say

CONCERT_A = 440.0


@dataclass(frozen=True)
class Sounding:
    """One string as it sounds. pitch : [Hz]  tension : [N], None without figures.  why : where that comes from."""

    name: str
    pitch: float | None
    tension: float | None
    why: str


def set_tried(bench: PageBench) -> StringSet | None:
    """The set that is on it, or the one that is tried; None where none is named."""
    on = bench.state.string_set
    if on is None:
        return None
    names = bench.state.instrument.string_names
    fitting = [one for one in bench.sets if tuple(s.name for s in one.strings) == names and one.id != on.id]
    choices = [HandleChoice(str(on.id), say.on_now(on.name)), *(HandleChoice(str(s.id), s.name) for s in fitting)]
    chosen = bench.choose("set", "strings", choices, rests_at=str(on.id))
    return next((one for one in fitting if str(one.id) == chosen), on)


def sounding(bench: PageBench, string_set: StringSet, string_length: float) -> list[Sounding]:
    """Every string at the pitch that its A was read at, else at 440.

    A tension that a set states is for the nominal length of such an instrument and an A of 440.
    """
    read = bench.state.held("pitch")
    share = 1.0 if read is None else read.value / CONCERT_A
    pitches = string_pitches(bench.state.instrument.family)
    wanted = bench.state.wanted(("string_length", None))
    quoted_at = string_length if wanted is None else wanted.band.aim
    return [
        _sounding(string, pitches.get(string.name), share, string_length, quoted_at) for string in string_set.strings
    ]


def _sounding(string: SetString, pitch: float | None, share: float, string_length: float, quoted_at: float) -> Sounding:
    sounds = None if pitch is None else pitch * share
    if string.linear_density is not None and sounds is not None:
        tension = tension_of_density(linear_density=string.linear_density, string_length=string_length, pitch=sounds)
        why = say.why_by_density(
            string.name,
            density=string.linear_density,
            string_length=string_length,
            pitch=sounds,
            tension=tension,
        )
        return Sounding(string.name, sounds, tension, why)
    if string.tension is not None:
        tension = tension_at(
            tension=string.tension,
            string_length=string_length,
            reference_length=quoted_at,
            pitch=None if sounds is None else share,
            reference_pitch=None if sounds is None else 1.0,
        )
        why = say.why_as_stated(
            string.name,
            stated=string.tension,
            quoted_at=quoted_at,
            string_length=string_length,
            share=share,
            tension=tension,
        )
        return Sounding(string.name, sounds, tension, why)
    return Sounding(string.name, sounds, None, say.no_figures(string.name))
