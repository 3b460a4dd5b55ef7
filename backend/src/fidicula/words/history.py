"""What was written down at a visit, a line each, as somebody reads it years later."""

from __future__ import annotations

from fidicula.domain.sound import Heard, PostEntry
from fidicula.domain.visits import Decision, Seen
from fidicula.domain.works import WorkDone
from fidicula.judgement.assessment.questions import outcome_of
from fidicula.numerals import short
from fidicula.tables.signs import VERDICTS, findings, items
from fidicula.tables.work import works
from fidicula.tables.workflow import questions
from fidicula.words.acts import act_words
from fidicula.words.numbers import answered, sentence


def work(done: WorkDone) -> str:
    """“The crown was cut”, or what else is told of it: “Post moved: top 0.4 mm toward the tailpiece”."""
    row = works()[done.work]
    said = act_words(done.work, done.detail)
    if said == row.done_label:
        return sentence(said)[:-1]
    return sentence(said)[:-1] if done.work == "post_moved" else f"{row.label}: {said}"


def post(entry: PostEntry) -> str:
    """“Sound post 51.5 mm long, 6.2 mm thick, spruce, fitted …”"""
    told = [
        f"{short(entry.length)} mm long" if entry.length else "",
        f"{short(entry.diameter)} mm thick" if entry.diameter else "",
        entry.wood,
        entry.marks_inside,
    ]
    return f"Sound post: {', '.join(one for one in told if one) or 'described'}"


def decided(made: Decision) -> str:
    outcome = outcome_of(made)
    title = questions()[made.question].title if made.question in questions() else made.question
    said = answered(title, made.outcome if outcome is None else outcome.label)
    return f"{said} ({made.reason})" if made.reason else said


def seen(line: Seen) -> str:
    label = items()[line.item].label if line.item in items() else line.item
    found = ", ".join(findings()[name].label for name in line.findings if name in findings())
    told = ", ".join(one for one in (VERDICTS.get(line.verdict, line.verdict), found, line.words) if one)
    return f"{sentence(label)[:-1]}: {told}"


def heard(note: Heard) -> str:
    words = ", ".join(note.player_words)
    told = "; ".join(one for one in (words, note.remark) if one)
    who = note.player or "somebody"
    return f"{who}: {told}" if told else f"{who} played it"
