"""The form of a part as it is now, and of each line of its story."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add the columns: whatever is there was written in form 5."""
    form = sa.Column("present_form", sa.Integer(), nullable=False, server_default="5")
    op.add_column("parts", form)
    op.add_column(
        "part_entries", sa.Column("form", sa.Integer(), nullable=False, server_default="5")
    )
