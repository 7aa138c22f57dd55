"""Rigs, their entries, and preferences."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the first tables."""
    op.create_table(
        "rigs",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("base", sa.JSON(), nullable=False),
        sa.Column("created_at", sa.String(40), nullable=False),
        sa.Column("archived_at", sa.String(40), nullable=True),
    )
    op.create_table(
        "entries",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column(
            "rig_id", sa.Integer(), sa.ForeignKey("rigs.id", ondelete="CASCADE"), nullable=False
        ),
        sa.Column("seq", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(10), nullable=False),
        sa.Column("at", sa.String(40), nullable=False),
        sa.Column("station", sa.String(40), nullable=True),
        sa.Column("standing", sa.String(20), nullable=True),
        sa.Column("why", sa.Text(), nullable=False),
        sa.Column("changes", sa.JSON(), nullable=False),
        sa.UniqueConstraint("rig_id", "seq", name="uq_entries_rig_seq"),
        sa.CheckConstraint("kind in ('adjust','check','undo','redo')", name="ck_entries_kind"),
    )
    op.create_index("ix_entries_rig", "entries", ["rig_id"])
    op.create_table(
        "preferences",
        sa.Column("key", sa.String(40), primary_key=True),
        sa.Column("value", sa.JSON(), nullable=False),
    )
