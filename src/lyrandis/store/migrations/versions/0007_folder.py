"""The folder's own id and generation, a rig's uid for good, and the devices that are let in."""

from __future__ import annotations

import secrets

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the tables; give each rig its uid and the folder its id."""
    folder = op.create_table(
        "folder",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("generation", sa.Integer, nullable=False),
    )
    op.bulk_insert(folder, [{"id": secrets.token_hex(16), "generation": 1}])
    op.add_column("rigs", sa.Column("uid", sa.String(32), nullable=False, server_default=""))
    op.execute("UPDATE rigs SET uid = lower(hex(randomblob(16)))")
    op.create_index("ix_rigs_uid", "rigs", ["uid"], unique=True)
    op.create_table(
        "devices",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("digest", sa.String(64), nullable=False, unique=True),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("made_at", sa.String(40), nullable=False),
        sa.Column("seen_at", sa.String(40), nullable=False),
        sa.Column("gone_at", sa.String(40)),
    )
