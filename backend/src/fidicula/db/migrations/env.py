"""Run by Alembic; the engine comes from db/migrate.py."""

from alembic import context

from fidicula.db.schema import metadata

engine = context.config.attributes["engine"]
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=metadata, compare_server_default=False)
    with context.begin_transaction():
        context.run_migrations()
