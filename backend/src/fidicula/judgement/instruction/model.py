"""What somebody is told to do, in codes and amounts."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Literal

from fidicula.codes import InstructionCode, WorkCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.model import Question, Slip

CutRole = Literal[
    "none", "due", "slots", "beside", "nut", "wheels", "coming_down", "may", "waits", "to_aim", "not_chosen"
]
"""What the amounts of wood are at this moment: to take now; nothing, for slots are filed, wood goes beside the strings,
or the strings are on their way down by their slots; a provisional cut that may be made; to take later; only what it
would be to the aim, for the strings stand in band; or another way was decided, and nobody takes them."""

AmountName = Literal[
    "take", "of_wood", "slot_by", "beside", "file_by", "file_first", "file_to", "turns", "leg", "at_heel",
    "at_board_end", "at_bridge", "angle", "most_off", "move", "width", "setback", "inset", "mark", "mark_height",
    "closer", "height_added", "taps", "room",
]  # fmt: skip


@dataclass(frozen=True)
class Amount:
    """One amount of an instruction. [mm, or its own unit]

    position : of the string, low 0; None where it is of none.  side : bass or treble, where it is of one.
    uncertainty : ± of it, 0 where it is not measured.
    """

    name: AmountName
    value: float
    position: int | None = None
    side: Literal["", "bass", "treble"] = ""
    uncertainty: float = 0.0


@dataclass(frozen=True)
class Instruction:
    """The one main thing to do now.

    code : its row of instructions.csv.  records : the work that writes it down, empty where none does.
    also : works that may be recorded as well now, though they are not what is asked for.
    amounts : low string first.  keys : to measure, in their order; again : whether they were read before.
    times : how often a key is read, where once is too little for the cut at hand.  repeats : once more than before.
    question : that is to be decided, or that led here; option : that is followed.  is_decided : by somebody.
    stop : of the visit.  until : when a wait is over.  waits_after, reason : what it waits for.
    leads_to : what readings are needed for.
    makes_stale : the measures that no cut may rest on once it is done.  slip : what is to be put right first.
    planned : the work of the plan that comes next.
    missing : targets without a figure.  outer_in_band : the strings' heights stand in band.
    """

    code: InstructionCode
    part: str = ""
    records: WorkCode | Literal[""] = ""
    also: tuple[WorkCode, ...] = ()
    amounts: tuple[Amount, ...] = ()
    keys: tuple[MeasurementKey, ...] = ()
    again: bool = False
    times: Mapping[MeasurementKey, int] = field(default_factory=dict)
    repeats: bool = False
    question: Question | None = None
    option: str = ""
    is_decided: bool = False
    stop: str = ""
    until: datetime | None = None
    waits_after: WorkCode | Literal[""] = ""
    reason: str = ""
    leads_to: InstructionCode | None = None
    makes_stale: tuple[str, ...] = ()
    slip: Slip | None = None
    missing: tuple[str, ...] = ()
    cut_role: CutRole = "none"
    notes: tuple[str, ...] = field(default=())
    planned: WorkCode | Literal[""] = ""

    def values(self, name: AmountName) -> dict[int | None, float]:
        """The amounts of a name, by string."""
        return {one.position: one.value for one in self.amounts if one.name == name}
