"""What all pages say alike."""

from __future__ import annotations


def why_retake(state: str | None, stale_because: str | None) -> str:
    """Why a place has to be read. state : of its reading, None where there is none."""
    if state is None:
        return "it was not read yet"
    return f"it is {state}: {stale_because}" if stale_because else f"it is {state}"
