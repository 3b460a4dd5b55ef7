"""Blind comparisons: told apart from guessing. How many is said before, and nothing is told until the last."""

from __future__ import annotations

import secrets
from collections.abc import Mapping, Sequence
from uuid import UUID

from fidicula.core.sound.ratings import SURE, chance_of_preferring, times_needed
from fidicula.domain.sound import BlindTrial
from fidicula.views.adjustments.model import BlindChance, BlindView
from fidicula.views.adjustments.places import Trail
from fidicula.views.adjustments.records import TrailRecords
from fidicula.words import trail as say
from fidicula.words.acts import act_words

OFFERED = (6, 8, 10, 12, 16, 20)
"""So many comparisons may be agreed on; under six nothing can be more than a guess."""
MOST_TRIALS = 40


def states_of(trail: Trail) -> Mapping[UUID, tuple[int, str]]:
    """Which state each recording is of: its line's index and its name."""
    found = {}
    for line in trail.lines:
        name = f"place {line.spot}"
        if line.work is not None and not line.is_new_place:
            name += f", {act_words(line.kind, line.work.detail)}"
        found.update({recording.id: (line.index, name) for recording in line.recordings})
    return found


def balanced(one: UUID, other: UUID, trials: int) -> list[tuple[UUID, UUID]]:
    """Each is first as often as the other, in an order by chance; of an odd number chance has the last."""
    chance = secrets.SystemRandom()
    halves = [(one, other), (other, one)] * (trials // 2)
    if trials % 2:
        halves.append(chance.choice([(one, other), (other, one)]))
    chance.shuffle(halves)
    return halves


def chances() -> list[BlindChance]:
    """What can be agreed on, and what each number can show."""
    found = []
    for trials in OFFERED:
        needed = times_needed(trials=trials)
        if needed is not None:
            guess = chance_of_preferring(times=needed, trials=trials)
            found.append(BlindChance(trials, say.can_show(trials=trials, needed=needed, guess=guess)))
    return found


def blind_views(records: TrailRecords, trail: Trail) -> list[BlindView]:
    """Each series, newest first; what was heard stays hidden until its last was chosen."""
    states = states_of(trail)
    by_series: dict[UUID, list[BlindTrial]] = {}
    for trial in records.trials:
        by_series.setdefault(trial.series, []).append(trial)
    return [_view(series, trials, states) for series, trials in reversed(by_series.items())]


def _view(series: UUID, trials: Sequence[BlindTrial], states: Mapping[UUID, tuple[int, str]]) -> BlindView:
    waiting = next((trial for trial in trials if trial.chosen is None), None)
    done = sum(trial.chosen is not None for trial in trials)
    player = trials[0].player
    if waiting is not None:
        return BlindView(str(series), player, len(trials), done, str(waiting.id), "", [])
    made = [trial for trial in trials if trial.chosen != "given_up"]
    if len(made) < len(trials):
        told = say.given_up(player, len(made), len(trials))
        return BlindView(str(series), player, len(trials), len(made), "", told, [])
    names = {one: states[one][1] if one in states else say.GONE for one in (trials[0].first_id, trials[0].second_id)}
    liked = [one.first_id if one.chosen == "first" else one.second_id for one in made if one.chosen != "neither"]
    counted = {one: liked.count(one) for one in names}
    best = max(counted, key=lambda one: counted[one])
    other = next(one for one in names if one != best)
    if not liked:
        told = say.no_difference([names[best], names[other]])
    else:
        guess = chance_of_preferring(times=counted[best], trials=len(made))
        told = say.preferred(
            names[best],
            names[other],
            times=counted[best],
            others=counted[other],
            trials=len(made),
            guess=guess,
            sure=guess <= SURE,
        )
    each = [say.chosen(trial.chosen or "", [names[trial.first_id], names[trial.second_id]]) for trial in made]
    return BlindView(str(series), player, len(trials), done, "", f"{player}: {told}", each)
