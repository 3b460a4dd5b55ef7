"""Run by Alembic; the engine comes from db/migrate.py."""

from alembic import context

from fidicula.db.schema import metadata

engine = context.config.attributes["engine"]
with engine.connect() as connection:
    context.configure(connection=connection, target_metadata=metadata, compare_server_default=False)
    with context.begin_transaction():
        # A large house may take its time for this, whatever a single question may take.
        context.execute("SET LOCAL statement_timeout = 0")
        context.run_migrations()
