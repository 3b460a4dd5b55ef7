"""What to do now: exactly one main thing, with its amounts, what it waits for and what it makes stale."""
