"""What was answered to a request that had a key of its own: sent again, it is answered alike."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    op.create_table(
        "answers",
        sa.Column("key", sa.String(100), primary_key=True),
        sa.Column("request", sa.String(64), nullable=False),
        sa.Column("at", sa.String(40), nullable=False),
        sa.Column("status", sa.Integer(), nullable=True),
        sa.Column("kind", sa.String(100), nullable=True),
        sa.Column("body", sa.LargeBinary(), nullable=True),
    )
    op.create_index("ix_answers_at", "answers", ["at"])
