"""Notes by name, as they are said of a string."""

from __future__ import annotations

from fidicula.numerals import number

_NAMES = ("C", "C♯", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B")


def note_of(string: str, semitones: int) -> str:
    """The note over an open string; the step alone where a string has a name of its own."""
    if string not in _NAMES:
        return f"+{semitones}"
    return _NAMES[(_NAMES.index(string) + semitones) % 12]


def note_at(string: str, interval: float) -> str:
    """The note at an interval, and how far it lies beside it: “D”, “a third of a semitone over D”. [semitones]"""
    nearest = round(interval)
    off = interval - nearest
    note = note_of(string, nearest)
    if abs(off) < 0.05:
        return note
    return f"{note} {number(abs(off) * 100, 0)} cents {'sharp' if off > 0 else 'flat'}"
