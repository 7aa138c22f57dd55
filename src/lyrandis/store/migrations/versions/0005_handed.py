"""What was logged out of reach and handed over later, by the sender's own mark: kept once."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    op.create_table(
        "handed",
        sa.Column("mark", sa.String(32), primary_key=True),
        sa.Column(
            "rig_id", sa.Integer(), sa.ForeignKey("rigs.id", ondelete="CASCADE"), nullable=False
        ),
        sa.Column("seq", sa.Integer(), nullable=False),
    )
