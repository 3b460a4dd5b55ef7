"""load: tension, and what presses on the top."""

from __future__ import annotations

from fidicula.contract.quantities import (
    Answer,
    Density,
    Height,
    Length,
    LoadAngle,
    Offset,
    Pitch,
    Strings,
    Tension,
    Wire,
)
from fidicula.core.errors import CoreError, MissingInputError
from fidicula.core.mechanics.load import (
    KGF,
    BodyGeometry,
    BridgeAngles,
    angles_of,
    down_force,
    feet_loads,
    tension_at,
    tension_of_density,
)


class LoadStringIn(Wire):
    name: str
    bridge_offset: Offset
    tension: Tension | None = None
    reference_length: Length | None = None
    reference_pitch: Pitch | None = None
    linear_density: Density | None = None
    pitch: Pitch | None = None


class LoadGeometry(Wire):
    arch_height: Height
    projection: Length
    board_height_at_edge: Height
    stop_length: Length
    clearance_at_bridge: Height
    nut_height: Height
    crown_height: Length
    saddle_height: Height
    bridge_to_saddle: Length


class LoadRequest(Wire):
    string_length: Length
    foot_spread: Length
    strings: Strings[LoadStringIn]
    front_angle: LoadAngle | None = None
    rear_angle: LoadAngle | None = None
    geometry: LoadGeometry | None = None


class LoadString(Answer):
    name: str
    tension: float
    down_force: float


class LoadAnswer(Answer):
    strings: list[LoadString]
    total_tension: float
    total_tension_kgf: float
    down_force: float
    down_force_kgf: float
    front_angle: float
    rear_angle: float
    break_angle: float
    treble_foot: float
    bass_foot: float
    bisector_lean: float


def compute_load(request: LoadRequest) -> LoadAnswer:
    angles = _angles(request)
    tensions = [_tension(request, i, string) for i, string in enumerate(request.strings)]
    forces = [down_force(tension=tension, angles=angles) for tension in tensions]
    bass, treble = feet_loads(
        offsets=[s.bridge_offset for s in request.strings], forces=forces, foot_spread=request.foot_spread
    )
    return LoadAnswer(
        strings=[
            LoadString(name=s.name, tension=t, down_force=f)
            for s, t, f in zip(request.strings, tensions, forces, strict=True)
        ],
        total_tension=sum(tensions),
        total_tension_kgf=sum(tensions) / KGF,
        down_force=sum(forces),
        down_force_kgf=sum(forces) / KGF,
        front_angle=angles.front,
        rear_angle=angles.rear,
        break_angle=180 - angles.front - angles.rear,
        treble_foot=treble,
        bass_foot=bass,
        bisector_lean=(angles.rear - angles.front) / 2,
    )


def _angles(request: LoadRequest) -> BridgeAngles:
    given = request.front_angle is not None or request.rear_angle is not None
    if given == (request.geometry is not None):
        what = "not both" if given else "one of the two is needed"
        raise CoreError("front_angle", sentence=f"give the strings' two angles, or the geometry: {what}")
    if request.geometry is not None:
        return angles_of(geometry=BodyGeometry(**vars(request.geometry)), string_length=request.string_length)
    if request.front_angle is None:
        raise MissingInputError("front_angle", sentence="the angle on the fingerboard's side is needed too")
    if request.rear_angle is None:
        raise MissingInputError("rear_angle", sentence="the angle on the tailpiece's side is needed too")
    return BridgeAngles(front=request.front_angle, rear=request.rear_angle)


def _tension(request: LoadRequest, i: int, string: LoadStringIn) -> float:
    if (string.tension is None) == (string.linear_density is None):
        raise CoreError(
            "strings",
            i,
            "tension",
            sentence=f"the {string.name} string needs its tension or its linear density, and not both",
        )
    needs_pitch = string.linear_density is not None or string.reference_pitch is not None
    if needs_pitch and string.pitch is None:
        raise MissingInputError(
            "strings", i, "pitch", sentence=f"the pitch of the {string.name} string is needed for its tension"
        )
    if string.linear_density is not None and string.pitch is not None:
        return tension_of_density(
            linear_density=string.linear_density, string_length=request.string_length, pitch=string.pitch
        )
    return tension_at(
        tension=string.tension or 0.0,
        string_length=request.string_length,
        reference_length=string.reference_length,
        pitch=string.pitch,
        reference_pitch=string.reference_pitch,
    )
