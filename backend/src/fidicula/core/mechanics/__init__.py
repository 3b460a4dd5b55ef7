"""Forces and motion: what presses on the top, what the finger presses, what rattles."""
