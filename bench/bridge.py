"""One `bridge` computation in process: the wire model in, the answer out. Wanted: under 0.3 ms."""

from __future__ import annotations

import json
import statistics
import time
from pathlib import Path

from fidicula.contract.bridge import BridgeRequest, compute_bridge
from fidicula.contract.kinds import KINDS

EXAMPLE = Path(__file__).parents[1] / "backend" / "tests" / "contract" / "examples" / "bridge.json"
ROUNDS, REPEATS = 25, 200


def run() -> None:
    request = json.loads(EXAMPLE.read_text())["input"]
    fitted = {**request, "curve": "heights", "strings": [dict(s) for s in request["strings"]]}
    for string, height in zip(fitted["strings"], (4.8, 4.3, 3.6, 3.1), strict=True):
        string["height"] = height
    for name, data in (("template crown", request), ("fitted crown", fitted)):
        parsed = BridgeRequest.model_validate(data)
        compute = _milliseconds(lambda parsed=parsed: compute_bridge(parsed))  # type: ignore[misc]
        whole = _milliseconds(lambda data=data: KINDS["bridge"].answer_to(data))  # type: ignore[misc]
        print(f"bridge, {name}: {compute:.3f} ms computed, {whole:.3f} ms with checking its input (wanted: under 0.3)")


def _milliseconds(call) -> float:  # type: ignore[no-untyped-def]
    rounds = []
    for _ in range(ROUNDS):
        started = time.perf_counter()
        for _ in range(REPEATS):
            call()
        rounds.append((time.perf_counter() - started) / REPEATS * 1e3)
    return statistics.median(rounds)
