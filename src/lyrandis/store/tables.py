"""The tables. A rig is the document it began with and an append-only list of entries."""

from __future__ import annotations

from typing import Any

from sqlalchemy import CheckConstraint, ForeignKey, Index, String, Text, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

from lyrandis.store.loose import LooseJSON


class Base(DeclarativeBase):
    """Base of the tables."""


class RigRow(Base):
    """A rig: its beginning, and whether it is put away."""

    __tablename__ = "rigs"

    id: Mapped[int] = mapped_column(primary_key=True)
    base: Mapped[Any] = mapped_column(LooseJSON)
    created_at: Mapped[str] = mapped_column(String(40))
    archived_at: Mapped[str | None] = mapped_column(String(40), default=None)


class EntryRow(Base):
    """One line of a rig's history; never changed once written."""

    __tablename__ = "entries"
    __table_args__ = (
        UniqueConstraint("rig_id", "seq", name="uq_entries_rig_seq"),
        CheckConstraint(
            "kind in ('adjust','check','trial','strike','restore','undo','redo')",
            name="ck_entries_kind",
        ),
        Index("ix_entries_rig", "rig_id"),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    rig_id: Mapped[int] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"))
    seq: Mapped[int]
    kind: Mapped[str] = mapped_column(String(10))
    at: Mapped[str] = mapped_column(String(40))
    station: Mapped[str | None] = mapped_column(String(40), default=None)
    standing: Mapped[str | None] = mapped_column(String(20), default=None)
    why: Mapped[str] = mapped_column(Text, default="")
    changes: Mapped[Any] = mapped_column(LooseJSON, default=list)
    trial: Mapped[Any] = mapped_column(LooseJSON, default=None)
    about: Mapped[int | None] = mapped_column(default=None)


class PreferenceRow(Base):
    """A preference of whoever uses this data folder."""

    __tablename__ = "preferences"

    key: Mapped[str] = mapped_column(String(40), primary_key=True)
    value: Mapped[Any] = mapped_column(LooseJSON)
