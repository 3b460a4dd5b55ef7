"""Use cases: one method, one unit of work, one commit."""
