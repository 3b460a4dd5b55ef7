"""Blind comparisons: told apart from guessing."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from uuid import UUID

from fidicula.core.sound.ratings import SURE, chance_of_guessing
from fidicula.services.phrasing import trail as say
from fidicula.services.phrasing.acts import act_words
from fidicula.services.trail.model import BlindView
from fidicula.services.trail.places import Trail
from fidicula.services.trail.records import TrailRecords


def states_of(trail: Trail) -> Mapping[UUID, tuple[int, str]]:
    """Which state each recording is of: its line's index and its name."""
    found = {}
    for line in trail.lines:
        name = f"place {line.spot}"
        if line.work is not None and not line.is_new_place:
            name += f", {act_words(line.kind, line.work.detail)}"
        found.update({recording.id: (line.index, name) for recording in line.recordings})
    return found


def blind_views(records: TrailRecords, trail: Trail) -> list[BlindView]:
    """Newest first; what was heard stays hidden until the player chose."""
    states = states_of(trail)
    found = []
    for trial in reversed(records.trials):
        names = [states[one][1] if one in states else "" for one in (trial.first_id, trial.second_id)]
        said = say.NOT_CHOSEN
        if trial.chosen is not None:
            liked = {"first": names[0], "second": names[1]}.get(trial.chosen, "")
            said = say.chosen(trial.player, trial.chosen, liked)
        shown = names if trial.chosen is not None else ["", ""]
        found.append(BlindView(str(trial.id), trial.player, trial.chosen or "", shown[0], shown[1], said))
    return found


def blind_words(records: TrailRecords, trail: Trail, player: str) -> str:
    """The pair that was compared most often: how often which was preferred, and whether a guess would do the same."""
    states = states_of(trail)
    pairs: dict[frozenset[tuple[int, str]], Counter[tuple[int, str]]] = {}
    for trial in records.trials:
        first, second = states.get(trial.first_id), states.get(trial.second_id)
        if trial.player != player or trial.chosen is None or first is None or second is None or first == second:
            continue
        counted = pairs.setdefault(frozenset({first, second}), Counter())
        liked = {"first": first, "second": second}.get(trial.chosen)
        if liked is not None:
            counted[liked] += 1
    if not pairs:
        return ""
    pair, counted = max(pairs.items(), key=lambda one: one[1].total())
    if not counted:
        return say.no_difference([name for _, name in sorted(pair)])
    best, times = counted.most_common(1)[0]
    over = next(name for state in pair if (name := state[1]) and state != best)
    guess = chance_of_guessing(right=times, trials=counted.total())
    return say.preferred(best[1], over, times=times, trials=counted.total(), guess=guess, sure=guess <= SURE)
