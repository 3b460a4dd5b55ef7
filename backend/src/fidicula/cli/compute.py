"""./fidicula compute KIND: one JSON object, or a list of them, from standard input to standard output."""

from __future__ import annotations

import json
import sys
from typing import Any

from fidicula.contract.kinds import KINDS, Kind, parse
from fidicula.contract.refusals import Refusal, malformed


def run(arguments: list[str]) -> int:
    """Exit status 0 with the answer, or 2 with the refusal on standard error and nothing on standard output."""
    try:
        if len(arguments) != 1 or arguments[0] not in KINDS:
            asked = " ".join(arguments) or "nothing"
            raise malformed(f"there is no computation {asked!r}; there are {', '.join(KINDS)}")
        answer = _answer(KINDS[arguments[0]], parse(sys.stdin.buffer.read()))
    except Refusal as refusal:
        print(json.dumps(refusal.as_json()), file=sys.stderr)
        return 2
    print(json.dumps(answer))
    return 0


def _answer(kind: Kind[Any, Any], data: object) -> object:
    if not isinstance(data, list):
        return kind.answer_to(data)
    answers = []
    for index, item in enumerate(data):
        try:
            answers.append(kind.answer_to(item))
        except Refusal as refusal:
            raise refusal.under(index) from refusal
    return answers
