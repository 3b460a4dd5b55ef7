"""The trail as the page shows it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date, timedelta
from typing import Literal, cast

from fidicula.codes import MeasureCode, SignCode
from fidicula.core.fitting.post import as_gauged, post_place
from fidicula.core.mechanics.perspective import gape_of_shift
from fidicula.core.sound.places import EndPlace
from fidicula.core.sound.ratings import mean_rating
from fidicula.domain.sound import PostEntry
from fidicula.judgement.assessment.inspection import is_mended, standing_seen
from fidicula.judgement.assessment.post import post_target
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.visit_record import VisitRecord
from fidicula.tables.signs import findings
from fidicula.tables.sound import act_choices, complaints
from fidicula.views.adjustments.advice import advice_for
from fidicula.views.adjustments.blind import blind_views, chances
from fidicula.views.adjustments.heard import (
    best_line,
    by_player,
    changed_by,
    changed_views,
    heard_view,
    marks_of,
    rated_of,
)
from fidicula.views.adjustments.model import (
    EndView,
    Line,
    PlaceView,
    PostView,
    RecordingView,
    SessionView,
    SoundView,
    TrialView,
)
from fidicula.views.adjustments.places import FRAME_WORKS, Spot, Trail, TrailLine, trail_of
from fidicula.views.adjustments.records import TrailRecords
from fidicula.views.adjustments.ways_back import WayBack, half_of, open_trials, way_back, why_not_back, why_not_half
from fidicula.words import trail as say
from fidicula.words.acts import ENDS, act_words

ENOUGH = 3
"""Acts without a gain after which ears are tired."""
POST_THICK = 6.0
"""Where neither post nor figure says otherwise. [mm]"""
BETWEEN_SHAVINGS = timedelta(days=14)
"""A bridge that was left thick is played between shavings, two to four weeks."""


def made_trail(loaded: VisitRecord, records: TrailRecords) -> Trail:
    """One instrument's trail."""
    state = loaded.state()
    foot = state.read_or_figure("bridge_foot_width")
    diameter = state.targets.figure("post_diameter")
    return trail_of(
        records,
        current=loaded.visit.id,
        foot_width=None if foot is None else foot.value,
        post_diameter=POST_THICK if diameter is None else diameter.band.aim,
    )


def sound_view(loaded: VisitRecord, records: TrailRecords, *, complaint: str) -> SoundView:
    """Everything about an instrument's sound. complaint : that advice is wanted on, empty for none."""
    state, trail, player = loaded.state(), made_trail(loaded, records), records.player
    names = state.instrument.string_names
    past: frozenset[SignCode] = frozenset({"strings_past"}) if records.strings_past else frozenset()
    signs = loaded.assess().signs | past
    best = best_line(trail, player, comparable=True)
    is_search = best is not None and sum(by_player(line, player) is not None for line in trail.lines) > 1
    fallen = "post_fallen" in signs
    no_way, no_half = why_not_back(trail, fallen=fallen), why_not_half(trail, fallen=fallen)
    half = half_of(trail.now.first)
    return SoundView(
        ticket=state.instrument.ticket,
        session=SessionView(player, records.begun, list(records.player_words)),
        places=[
            _place(trail, spot, records, best.spot if best and is_search else 0, can_go=not no_way, fallen=fallen)
            for spot in trail.spots
        ],
        lines=[_line(trail, line, player, names) for line in trail.lines],
        now=trail.now.number,
        best=best.spot if best and is_search else None,
        unverified=_unverified(trail, signs),
        fallen=fallen,
        may_go_back=say.BACK[no_way],
        may_halve=say.HALF[no_half],
        half_words="" if half is None else act_words("post_moved", half.model_copy(update={"half_of": None})),
        tap=_tap_words(trail),
        opens=_opens(records.posts[-1], trail) if records.posts else "",
        post=_post(records.posts[-1]) if records.posts else None,
        earlier_posts=[_post(entry) for entry in reversed(records.posts[:-1])],
        fit=_fit(state),
        trials_on=[TrialView(str(one.id), act_words(one.work, one.detail)) for one in open_trials(trail)],
        next_shaving=_next_shaving(trail),
        stop=_stop(trail, player, best) if is_search else "",
        complaints=dict(complaints()),
        complaint=complaint,
        advice=advice_for(complaint, trail, player, signs, names, moves=state.targets.schools["post_moves"])
        if complaint
        else [],
        blind=blind_views(records, trail),
        blind_chances=chances(),
        choices={name: dict(choices) for name, choices in act_choices().items()},
        string_names=list(names),
        foot_width=trail.foot_width,
        foot_thickness=_of(state, "bridge_foot_thickness"),
        post_diameter=trail.post_diameter,
        wanted=wanted_place(state, trail),
    )


def _of(state: BenchState, measure: MeasureCode) -> float | None:
    held = state.read_or_figure(measure)
    return None if held is None else held.value


def wanted_place(state: BenchState, trail: Trail) -> EndView | None:
    """Where the instrument's school puts the post; None where a figure for it is missing."""
    target = post_target(state, post_diameter=trail.post_diameter)
    if target is None or trail.foot_width is None:
        return None
    at = post_place(
        setback=target.setback, inset=target.inset, foot_width=trail.foot_width, post_diameter=trail.post_diameter
    )
    return EndView("top", "estimated", at[0], at[1], target.setback, target.inset, 0.0)


def _end(end: str, place: EndPlace, trail: Trail) -> EndView:
    behind, across = place.at if place.at is not None else (None, None)
    read = None
    if place.at is not None and trail.foot_width is not None:
        read = as_gauged(place.at, foot_width=trail.foot_width, post_diameter=trail.post_diameter)
    return EndView(
        end=cast(Literal["top", "bottom"], end),
        known=place.known,
        behind=behind,
        across=across,
        setback=None if read is None else read.setback,
        inset=None if read is None else read.inset,
        known_to=place.known_to,
    )


def _place(trail: Trail, spot: Spot, records: TrailRecords, best: int, *, can_go: bool, fallen: bool) -> PlaceView:
    is_now = spot is trail.now
    breaks = list(trail.breaks_since(spot.last_index))
    back = None if is_now or not can_go else way_back(trail, spot)
    bare = [line for line in trail.lines if line.spot == spot.number and not line.on]
    rated = [h for line in bare if (h := by_player(line, records.player))]
    means = [mean for h in rated if (mean := mean_rating(rated_of(h))) is not None]
    return PlaceView(
        number=spot.number,
        says=_says(spot.first),
        at=spot.first.at,
        ends=[
            _end(name, _held(place, fallen=fallen and is_now), trail)
            for name, place in zip(ENDS, spot.ends, strict=True)
        ],
        is_now=is_now,
        is_best=spot.number == best,
        incomparable=list(dict.fromkeys(say.BREAKS[code] for line in breaks for code in line.breaks)),
        from_other_foot=any(line.kind in FRAME_WORKS for line in breaks),
        way_back="" if back is None else way_back_words(back),
        way_is_estimate=back is not None and back.is_estimate,
        vectors={} if back is None else {end: list(vector) for end, vector in back.ways.items()},
        mean=max(means, default=None),
    )


def _held(place: EndPlace, *, fallen: bool) -> EndPlace:
    """Where a post that lies inside last stood is no gauged place of it any more."""
    return replace(place, known="estimated") if fallen and place.at is not None else place


def _says(line: TrailLine) -> str:
    if line.work is None:
        return say.as_it_came(line.at.astimezone().date())
    return act_words(line.kind, line.work.detail)


def _line(trail: Trail, line: TrailLine, player: str, names: Sequence[str]) -> Line:
    return Line(
        key=f"{line.visit.id}/{0 if line.work is None else line.work.number}",
        work=line.kind or None,
        work_id=None if line.work is None else str(line.work.id),
        says=_says(line),
        by="" if line.work is None else line.work.done_by,
        at=line.at,
        visit_id=str(line.visit.id),
        place=line.spot,
        is_new_place=line.is_new_place,
        irreversible=line.kind == "bridge_wood",
        marks=marks_of(trail, line, player),
        heard=[heard_view(h, player, names) for h in line.heard],
        recordings=[RecordingView(str(r.id), r.words, r.recorded_by, r.recorded_at) for r in line.recordings],
        changed=changed_views(changed_by(trail, line, player), names),
        on=[act_words(one.work, one.detail) for one in line.on if line.work is None or one.id != line.work.id],
    )


def _unverified(trail: Trail, signs: frozenset[str]) -> list[str]:
    found = []
    if "post_fallen" in signs:
        gauged = next((s for s in reversed(trail.spots) if all(end.known == "gauged" for end in s.ends)), None)
        return [say.fallen(None if gauged is None else gauged.number)]
    known = {name: end.known for name, end in zip(ENDS, trail.now.ends, strict=True)}
    guessed = [name for name in ENDS if known[name] == "estimated"]
    if guessed:
        found.append(say.estimated(guessed))
    lost = [name for name in ENDS if known[name] == "unknown"]
    if lost:
        found.append(say.not_gauged(lost))
    if signs & {"bridge_walked", "bridge_off_place", "bridge_turned"}:
        found.append(say.BRIDGE_ASTRAY)
    return found


def way_back_words(back: WayBack) -> str:
    """The way to an earlier place; an estimate with its ±, and what makes it sure."""
    return say.way_back(back.taps, back.ways, known_to=back.known_to if back.is_estimate else None)


def _opens(post: PostEntry, trail: Trail) -> str:
    """What half a millimetre at one end opens across it."""
    if post.length is None:
        return ""
    gape = gape_of_shift(shift=A_SHIFT, length=post.length, diameter=trail.post_diameter)
    return say.opens(shift=A_SHIFT, gape=gape)


A_SHIFT = 0.5
"""A move that is told as an example. [mm]"""


def _tap_words(trail: Trail) -> str:
    if trail.tap is None:
        return say.NO_TAP
    return say.tap(trail.tap.mean, known_to=trail.tap.known_to, taps=trail.tap.taps)


def _post(entry: PostEntry) -> PostView:
    return PostView(
        id=str(entry.id),
        visit_id=str(entry.visit_id),
        length=entry.length,
        diameter=entry.diameter,
        wood=entry.wood,
        grain_mark=entry.grain_mark,
        end_down=entry.end_down,
        fitted_on=entry.fitted_on,
        marks_inside=entry.marks_inside,
        by=entry.entered_by,
        at=entry.entered_at,
    )


def _fit(state: BenchState) -> list[str]:
    """What was last found at the post and is not mended."""
    line = standing_seen(state).get("post")
    if line is None:
        return []
    still = [name for name in line.findings if name in findings() and not is_mended(state, line, name)]
    said = [findings()[name].label for name in still]
    if line.findings and not said:
        return [say.SET_SINCE]
    return said or ["fine" if line.verdict == "fine" else line.words or line.verdict]


def _stop(trail: Trail, player: str, best: TrailLine | None) -> str:
    """After some acts that were heard and brought nothing it is time to leave off."""
    if best is None:
        return ""
    since = [line for line in trail.lines[best.index + 1 :] if by_player(line, player) is not None]
    if len(since) < ENOUGH:
        return ""
    return say.stop(len(since), best.spot)


def _next_shaving(trail: Trail) -> date | None:
    last = next((line for line in reversed(trail.lines) if line.kind == "bridge_wood"), None)
    return None if last is None else (last.at + BETWEEN_SHAVINGS).astimezone().date()
