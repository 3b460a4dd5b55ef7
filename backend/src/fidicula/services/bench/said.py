"""What somebody says of a work as it is written down."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.core.readings.plain import plain_number, plain_turns
from fidicula.domain.errors import RefusedError
from fidicula.domain.work_details import (
    CrownBeside,
    CrownCut,
    NutFiled,
    Plain,
    PostMoved,
    PostSet,
    SlotsFiled,
    WheelsTurned,
    WorkDetail,
)
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.thresholds import WORTH_TAKING
from fidicula.judgement.instruction.instruct import instruct
from fidicula.judgement.instruction.model import AmountName
from fidicula.numerals import short
from fidicula.tables.sound import act_choices


@dataclass(frozen=True)
class Said:
    """What is said of a work as it is written down, as typed. words : what it was, for other work.

    filed : at the nut, by string; empty where nothing was. [mm]  turned : turns of the bass and the treble wheel.
    tension : of the strings, as a post was set.
    """

    words: str = ""
    filed: Sequence[str] = ()
    turned: Sequence[str] = ()
    tension: str = ""


def as_said(a: Assessment, kind: str, said: Said) -> WorkDetail:
    if kind == "nut_filed":
        return NutFiled(by=_filed(a, said.filed))
    if kind == "adjusters_turned":
        return WheelsTurned(turns=_turned(said.turned), words=said.words.strip())
    if kind == "post_set":
        if said.tension and said.tension not in act_choices()["tension"]:
            told = ", ".join(act_choices()["tension"].values())
            raise RefusedError(f"the strings were {told}; it was “{said.tension}”", field="tension")
        return PostSet(tension=said.tension, words=said.words.strip())
    return set_out(a, kind, said.words)


def _turned(typed: Sequence[str]) -> tuple[float | None, ...]:
    """Raises RefusedError naming the wheel."""
    found: list[float | None] = []
    for i, (side, one) in enumerate(zip(("bass", "treble"), typed, strict=False)):
        value = plain_turns(one) if one.strip() else None
        if one.strip() and (value is None or abs(value) > MOST_TURNS):
            raise RefusedError(
                f"the {side} wheel: “{one}” is no number of turns; 1.5, 1 1/2 or −½ are, to {short(MOST_TURNS)}",
                field=f"turned.{i}",
            )
        found.append(value)
    return tuple(found) if any(found) else ()


def _filed(a: Assessment, typed: Sequence[str]) -> tuple[float | None, ...]:
    """Raises RefusedError naming the string."""
    names = a.state.instrument.string_names
    if typed and len(typed) != len(names):
        raise RefusedError(f"say it for each of {len(names)} strings; nothing where nothing was filed", field="filed")
    found: list[float | None] = []
    for i, one in enumerate(typed):
        value = plain_number(one) if one.strip() else 0.0
        if value is None or not 0 <= value <= MOST_FILED:
            raise RefusedError(
                f"{names[i]}: “{one}” is not what was filed; 0 to {short(MOST_FILED)} mm, or nothing",
                field=f"filed.{i}",
            )
        found.append(value or None)
    return tuple(found)


def set_out(a: Assessment, kind: str, words: str) -> WorkDetail:
    """What a work set out to do, which is part of its record."""
    strings = a.cut.strings
    if kind == "crown_cut":
        return CrownCut(
            wood=tuple(s.wood for s in strings),
            drop=tuple(s.drop for s in strings),
            passes=tuple(s.next_pass if (s.next_pass or 0.0) >= WORTH_TAKING else None for s in strings),
        )
    if kind in ("slots_filed", "crown_beside"):
        told = instruct(a)
        name: AmountName = "slot_by" if kind == "slots_filed" else "beside"
        by = told.values(name) if told.records == kind else {}
        each = tuple(by.get(i) for i in range(len(strings))) if by else ()
        model = SlotsFiled if kind == "slots_filed" else CrownBeside
        return model(by=each, words=words.strip())
    if kind == "nut_filed":
        return NutFiled(words=words.strip())
    if kind == "post_moved":
        return PostMoved(words=words.strip())
    if kind == "post_set":
        return PostSet(words=words.strip())
    if kind == "adjusters_turned":
        return WheelsTurned(words=words.strip())
    return Plain(words=words.strip())


MOST_TURNS = 20.0


MOST_FILED = 5.0
"""More is no filing. [mm]"""
