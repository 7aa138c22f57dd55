"""Alembic's environment: runs on the connection that `store.database` hands it."""

from alembic import context

from lyrandis.store.tables import Base

connection = context.config.attributes["connection"]
context.configure(
    connection=connection,
    target_metadata=Base.metadata,
    render_as_batch=True,
    transactional_ddl=True,  # SQLite takes table changes back too, if they are told inside one
)
with context.begin_transaction():
    context.run_migrations()
