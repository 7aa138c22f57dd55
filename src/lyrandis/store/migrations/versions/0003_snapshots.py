"""What follows from a history, kept beside it: trials, snapshots, checkpoints, fates.

Nothing is computed here: a rig without a snapshot is made one when it is first looked at.
"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def _of_rig() -> sa.Column[int]:
    return sa.Column(
        "rig_id", sa.Integer(), sa.ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True
    )


def upgrade() -> None:
    """Add columns with a default, which copies no row, and make the tables."""
    op.add_column("rigs", sa.Column("form", sa.Integer(), nullable=False, server_default="2"))
    for column in (
        sa.Column("form", sa.Integer(), nullable=False, server_default="2"),
        sa.Column("fate", sa.String(10), nullable=False, server_default="stands"),
        sa.Column("acts_on", sa.Integer(), nullable=True),
    ):
        op.add_column("entries", column)
    op.drop_index("ix_entries_rig", "entries")
    op.create_index("ix_entries_fate", "entries", ["rig_id", "fate", "seq"])
    op.create_index(
        "ix_entries_about",
        "entries",
        ["rig_id", "about"],
        sqlite_where=sa.text("about IS NOT NULL"),
    )
    op.create_table(
        "trials",
        _of_rig(),
        sa.Column("seq", sa.Integer(), primary_key=True),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("at", sa.String(40), nullable=False),
        sa.Column("day", sa.String(10), nullable=False),
        sa.Column("struck", sa.Boolean(), nullable=False),
        sa.Column("trial", sa.Text(), nullable=False),
        sa.Column("made_with", sa.Text(), nullable=False),
    )
    op.create_index("ix_trials_kind", "trials", ["rig_id", "kind", "day", "seq"])
    op.create_table(
        "snapshots",
        _of_rig(),
        sa.Column("made_by", sa.Integer(), nullable=False),
        sa.Column("seq", sa.Integer(), nullable=False),
        sa.Column("changed_at", sa.String(40), nullable=False),
        sa.Column("state", sa.Text(), nullable=True),
        sa.Column("summary", sa.Text(), nullable=True),
        sa.Column("fault", sa.Text(), nullable=True),
    )
    op.create_table(
        "checkpoints",
        _of_rig(),
        sa.Column("seq", sa.Integer(), primary_key=True),
        sa.Column("state", sa.Text(), nullable=False),
    )
