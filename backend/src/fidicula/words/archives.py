"""What is said of an archive that does not come to its end."""

from __future__ import annotations

ENDED_EARLY = "it ended before it was done, and nothing was taken in: try again"
