"""Alembic's environment and the versions of the schema."""
