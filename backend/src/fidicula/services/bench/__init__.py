"""Use cases at the bench: readings, works and decisions, and what puts them right."""
