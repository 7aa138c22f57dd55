"""The tables. A rig is the document it began with and an append-only list of entries.

Trials, snapshots and checkpoints follow from these and can be made anew at any time.
"""

from __future__ import annotations

from typing import Any

from sqlalchemy import CheckConstraint, ForeignKey, Index, String, Text, UniqueConstraint, text
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

from lyrandis.core import upcast
from lyrandis.store.loose import LooseJSON


def _form() -> int:
    return upcast.FORM


class Base(DeclarativeBase):
    """Base of the tables."""


class FolderRow(Base):
    """The data folder itself, one row: its id for good; each time its data was replaced or added
    to from elsewhere, the generation goes up.
    """

    __tablename__ = "folder"

    id: Mapped[str] = mapped_column(String(32), primary_key=True)
    generation: Mapped[int]


class DeviceRow(Base):
    """A device that was let in: the digest of what its cookie says, never that itself.

    gone_at : when it was signed out
    """

    __tablename__ = "devices"

    id: Mapped[int] = mapped_column(primary_key=True)
    digest: Mapped[str] = mapped_column(String(64), unique=True)
    name: Mapped[str] = mapped_column(String(80))
    made_at: Mapped[str] = mapped_column(String(40))
    seen_at: Mapped[str] = mapped_column(String(40))
    gone_at: Mapped[str | None] = mapped_column(String(40), default=None)


class RigRow(Base):
    """A rig: its beginning, in which form it was written, and whether it is put away.

    uid : its own for good, in whatever folder, file or backup it lies
    """

    __tablename__ = "rigs"
    __table_args__ = (Index("ix_rigs_uid", "uid", unique=True),)

    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(32), server_default="")
    base: Mapped[Any] = mapped_column(LooseJSON)
    created_at: Mapped[str] = mapped_column(String(40))
    archived_at: Mapped[str | None] = mapped_column(String(40), default=None)
    form: Mapped[int] = mapped_column(default=_form, server_default="2")


class EntryRow(Base):
    """One line of a rig's history; what it says is never changed once written.

    form : of its document
    fate, acts_on : what became of it and which entry it took back or did again; these two follow
        from the whole list and are written by the store
    """

    __tablename__ = "entries"
    __table_args__ = (
        UniqueConstraint("rig_id", "seq", name="uq_entries_rig_seq"),
        CheckConstraint(
            "kind in ('adjust','check','trial','strike','restore','undo','redo')",
            name="ck_entries_kind",
        ),
        Index("ix_entries_fate", "rig_id", "fate", "seq"),
        Index("ix_entries_about", "rig_id", "about", sqlite_where=text("about IS NOT NULL")),
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
    parts: Mapped[Any] = mapped_column(LooseJSON, default=None)
    implied: Mapped[bool] = mapped_column(default=False, server_default="0")
    form: Mapped[int] = mapped_column(default=_form, server_default="2")
    fate: Mapped[str] = mapped_column(String(10), default="stands", server_default="stands")
    acts_on: Mapped[int | None] = mapped_column(default=None)


class TrialRow(Base):
    """A trial as it stands: put right, struck out or not, and what the rig was set to then.

    Follows from the entries. `made_with` holds the settings in which the rig differed from its
    beginning.
    """

    __tablename__ = "trials"
    __table_args__ = (Index("ix_trials_kind", "rig_id", "kind", "day", "seq"),)

    rig_id: Mapped[int] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True)
    seq: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(20))
    at: Mapped[str] = mapped_column(String(40))
    day: Mapped[str] = mapped_column(String(10))
    struck: Mapped[bool]
    trial: Mapped[str] = mapped_column(Text)
    made_with: Mapped[str] = mapped_column(Text)


class SnapshotRow(Base):
    """A rig as it stands, so that opening it reads no history. Follows from the entries.

    made_by : the version of what is derived; another one's snapshot is made anew
    seq, changed_at : the latest entry and its time
    state : settings since the beginning and marks
    summary : its line in the list
    fault : why the rig cannot be read, instead of the two
    """

    __tablename__ = "snapshots"

    rig_id: Mapped[int] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True)
    made_by: Mapped[int]
    seq: Mapped[int]
    changed_at: Mapped[str] = mapped_column(String(40))
    state: Mapped[str | None] = mapped_column(Text)
    summary: Mapped[str | None] = mapped_column(Text)
    fault: Mapped[str | None] = mapped_column(Text, default=None)


class CheckpointRow(Base):
    """A state along the way, right after an entry that stands, so that going back is short."""

    __tablename__ = "checkpoints"

    rig_id: Mapped[int] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True)
    seq: Mapped[int] = mapped_column(primary_key=True)
    state: Mapped[str] = mapped_column(Text)


class PartRow(Base):
    """A part: its mark for good, what it began as and what it is now.

    seq : of its latest entry; each of its entries is brought into `present` as it is written
    form, present_form : of what it began as, and of what it is now
    """

    __tablename__ = "parts"

    mark: Mapped[str] = mapped_column(String(32), primary_key=True)
    kind: Mapped[str] = mapped_column(String(10))
    created_at: Mapped[str] = mapped_column(String(40))
    base: Mapped[str] = mapped_column(Text)
    present: Mapped[str] = mapped_column(Text)
    seq: Mapped[int] = mapped_column(default=0)
    form: Mapped[int] = mapped_column(default=_form)
    present_form: Mapped[int] = mapped_column(default=_form, server_default="5")


class PartEntryRow(Base):
    """One line of a part's story; never changed once written.

    rig_id : on which rig it was set
    form : of its document
    """

    __tablename__ = "part_entries"
    __table_args__ = (
        CheckConstraint("kind in ('adjust','undo','redo')", name="ck_part_entries_kind"),
    )

    mark: Mapped[str] = mapped_column(
        String(32), ForeignKey("parts.mark", ondelete="CASCADE"), primary_key=True
    )
    seq: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(10))
    at: Mapped[str] = mapped_column(String(40))
    why: Mapped[str] = mapped_column(Text, default="")
    changes: Mapped[Any] = mapped_column(LooseJSON, default=list)
    rig_id: Mapped[int | None] = mapped_column(
        ForeignKey("rigs.id", ondelete="SET NULL"), default=None
    )
    form: Mapped[int] = mapped_column(default=_form, server_default="5")


class RigPartRow(Base):
    """Which part is or was on which rig, and when it last was. Follows from the rig's states."""

    __tablename__ = "rig_parts"
    __table_args__ = (Index("ix_rig_parts_mark", "mark"),)

    rig_id: Mapped[int] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True)
    slot: Mapped[str] = mapped_column(String(12), primary_key=True)
    mark: Mapped[str] = mapped_column(String(32), primary_key=True)
    is_on: Mapped[bool]
    last_at: Mapped[str] = mapped_column(String(40))


class PreferenceRow(Base):
    """A preference of whoever uses this data folder."""

    __tablename__ = "preferences"

    key: Mapped[str] = mapped_column(String(40), primary_key=True)
    value: Mapped[Any] = mapped_column(LooseJSON)


class AnswerRow(Base):
    """What was answered to a request that was sent with a key of its own.

    request : digest of its method, path and body
    status, kind, body : the answer, its body packed; empty where the server ended before it
    """

    __tablename__ = "answers"
    __table_args__ = (Index("ix_answers_at", "at"),)

    key: Mapped[str] = mapped_column(String(100), primary_key=True)
    request: Mapped[str] = mapped_column(String(64))
    at: Mapped[str] = mapped_column(String(40))
    status: Mapped[int | None] = mapped_column(default=None)
    kind: Mapped[str | None] = mapped_column(String(100), default=None)
    body: Mapped[bytes | None] = mapped_column(default=None)


class HandedRow(Base):
    """An entry that was handed over later, by its sender's mark: sent twice, kept once."""

    __tablename__ = "handed"

    mark: Mapped[str] = mapped_column(String(32), primary_key=True)
    rig_id: Mapped[int] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"))
    seq: Mapped[int]
