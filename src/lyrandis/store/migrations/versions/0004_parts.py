"""Parts, kept once: what each is, its story, and on which rigs it is or was.

Nothing is computed here: the parts of a rig of before are made when it is first looked at.
"""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add columns that copy no row, and make the tables."""
    op.add_column("entries", sa.Column("parts", sa.Text(), nullable=True))
    op.add_column("entries", sa.Column("implied", sa.Boolean(), nullable=False, server_default="0"))
    op.create_table(
        "parts",
        sa.Column("mark", sa.String(32), primary_key=True),
        sa.Column("kind", sa.String(10), nullable=False),
        sa.Column("created_at", sa.String(40), nullable=False),
        sa.Column("base", sa.Text(), nullable=False),
        sa.Column("present", sa.Text(), nullable=False),
        sa.Column("seq", sa.Integer(), nullable=False),
        sa.Column("form", sa.Integer(), nullable=False),
    )
    op.create_table(
        "part_entries",
        sa.Column(
            "mark",
            sa.String(32),
            sa.ForeignKey("parts.mark", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("seq", sa.Integer(), primary_key=True),
        sa.Column("kind", sa.String(10), nullable=False),
        sa.Column("at", sa.String(40), nullable=False),
        sa.Column("why", sa.Text(), nullable=False),
        sa.Column("changes", sa.Text(), nullable=False),
        sa.Column(
            "rig_id", sa.Integer(), sa.ForeignKey("rigs.id", ondelete="SET NULL"), nullable=True
        ),
        sa.CheckConstraint("kind in ('adjust','undo','redo')", name="ck_part_entries_kind"),
    )
    op.create_table(
        "rig_parts",
        sa.Column(
            "rig_id", sa.Integer(), sa.ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True
        ),
        sa.Column("slot", sa.String(12), primary_key=True),
        sa.Column("mark", sa.String(32), primary_key=True),
        sa.Column("is_on", sa.Boolean(), nullable=False),
        sa.Column("last_at", sa.String(40), nullable=False),
    )
    op.create_index("ix_rig_parts_mark", "rig_parts", ["mark"])
