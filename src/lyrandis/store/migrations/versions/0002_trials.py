"""Trials: entries may hold one, and may be about an earlier one. What was written stays."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

_KINDS = "kind in ('adjust','check','trial','strike','restore','undo','redo')"


def upgrade() -> None:
    """Add the columns, and let the new kinds in."""
    with op.batch_alter_table("entries", recreate="always") as entries:
        entries.add_column(sa.Column("trial", sa.JSON(), nullable=True))
        entries.add_column(sa.Column("about", sa.Integer(), nullable=True))
        entries.drop_constraint("ck_entries_kind", type_="check")
        entries.create_check_constraint("ck_entries_kind", _KINDS)
