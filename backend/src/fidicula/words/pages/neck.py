"""What the page of neck and projection says."""

from __future__ import annotations

from collections.abc import Iterator

from fidicula.core.bands import Band
from fidicula.core.geometry.neck import ProjectionJudgement, StopJudgement
from fidicula.numerals import number, short, signed
from fidicula.words.numbers import band, changed
from fidicula.words.pages.notes import note_at

TITLE = "Neck and projection"
NOTHING_READ = "Read the projection and the neck; then what may be done stands here."
READ_THE_STOP = "Read the stop to be told where the bridge should stand."
LABELS = {
    "projection": "projection wanted",
    "wedge": "a wedge, thick at the heel",
    "board_end": "the board's end comes up",
    "bridge_shift": "the bridge moved, + toward the tailpiece",
    "octave": "the octave's place moves",
}
AIM_OF_FIGURE = "the figure's aim"
WHERE_IT_STANDS = "where it stands"
WAIT = "nothing yet: days in the shop's air, and read again"
GLUE_RESTS = "glue rests 12 to 24 hours; then everything over the board is read again"
NEVER_DOWN = "a wedge brings a board up, never down"
DEAR = "dear: the owner agrees first, and the bridge is made again"
STRINGS_FOLLOW = "Strings, post and heights follow the bridge."


def outside_of_band(*, aim: float, wanted: Band) -> str:
    return (
        f"{short(aim)} is outside of the band from {band(wanted.low, wanted.high)}: what is worked out goes to "
        "its nearest edge; to want another, change the figure or accept it with a reason."
    )


def contradiction(*, wedge: float, brings: float, projection: float, needed: float) -> str:
    return (
        f"A wedge of {number(wedge, 2)} brings {number(brings)}, and {short(projection)} is wanted: the two contradict "
        f"each other. For that it would be {number(needed, 2)} thick."
    )


def finding(*, projection: float, wanted: Band, judged: ProjectionJudgement) -> str:
    within = band(wanted.low, wanted.high)
    if judged.state == "in_band":
        return f"The projection of {short(projection)} is within its band of {within}: nothing to do about it."
    side = "below" if judged.state == "low" else "above"
    return (
        f"The projection of {short(projection)} is {side} its band of {within}: "
        f"{number(abs(judged.change_at_bridge))} mm {'short of' if judged.state == 'low' else 'beyond'} the aim."
    )


def takes(*, projection: float, judged: ProjectionJudgement, thickest: float | None) -> dict[str, list[str]]:
    """What each way to decide takes. thickest : that a wedge may be at the heel. [mm]"""
    limit = "" if thickest is None else f"; at most {short(thickest)} may go there"
    wedge = [
        f"{number(judged.change_at_heel, 2)} thick over the body's edge, nothing at the nut{limit}",
        f"{number(judged.change_at_board_end, 2)} under the board's end",
        f"the board turns by {number(judged.wedge_angle, 2)}°",
        GLUE_RESTS,
    ]
    reset = [
        f"the neck turns by {number(judged.reset_angle, 2)}° at the body's edge",
        f"{signed(judged.change_at_bridge)} at the bridge",
        DEAR,
    ]
    return {
        "wait": [WAIT],
        "wedge": [NEVER_DOWN] if judged.change_at_heel < 0 else wedge,
        "accept": [f"the bridge is made to {short(projection)}"],
        "reset": reset,
    }


def why_lift(*, heel: float, string_length: float, neck_length: float, lifts: float) -> str:
    return (
        f"{short(heel)} × {short(string_length)} ÷ {short(neck_length)} = {number(lifts, 2)} at the bridge: "
        "hinged at the nut."
    )


def why_board_end(*, lifts: float, board_length: float, string_length: float, at_end: float) -> str:
    return f"{number(lifts, 2)} × {short(board_length)} ÷ {short(string_length)} = {number(at_end, 2)}."


def at_board_end(name: str) -> str:
    return f"{name} at the board's end"


def why_end_height(*, height: float, at_end: float) -> str:
    return f"{short(height)} − {number(at_end, 2)}: the board comes up under a string that stays."


def stop(judged: StopJudgement, *, ratio: float) -> str:
    way = "toward the tailpiece" if judged.bridge_shift >= 0 else "toward the board"
    return (
        f"Neck to stop stands at {number(judged.neck_to_stop, 3)}, wanted {number(ratio, 3)}: "
        f"the bridge would stand at {number(judged.ideal_stop)} from the edge, "
        f"{number(abs(judged.bridge_shift))} mm {way} of where it is."
    )


def string_length(
    judged: StopJudgement, *, low_string: str, length: float, before: float | None, nominal: float | None
) -> Iterator[str]:
    """before : at an earlier visit. [mm]"""
    yield f"At the body's edge {low_string} sounds {note_at(low_string, judged.edge_interval)}."
    if before is not None and abs(length - before) >= 0.5:
        gone = "the tailpiece" if length > before else "the board"
        yield f"Since last time the bridge has walked {number(abs(length - before))} mm toward {gone}."
    elif judged.deviation is not None and abs(judged.deviation) >= 0.5:
        side = "over" if judged.deviation > 0 else "under"
        yield f"The string length is {number(abs(judged.deviation))} mm {side} the nominal {short(nominal or 0.0)}."


def why_string_length(*, length: float, shift: float) -> list[str]:
    return [changed(length, shift), STRINGS_FOLLOW]


def why_stop(*, measured: float, shift: float) -> str:
    return f"From the edge to the bridge's middle: {changed(measured, shift)}."


def why_neck_to_stop(*, neck: float, measured: float, ratio: float) -> str:
    return f"{short(neck)} ÷ {short(measured)}; wanted {number(ratio, 3)}."


def why_octave(nominal: float | None) -> str:
    return f"Half of what the string length is off its nominal {short(nominal or 0.0)}: a hand finds it elsewhere."
