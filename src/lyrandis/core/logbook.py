"""The logbook: each entry of a history as a sentence.

What the archer wrote stands in slots of its own and is never read as a template.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from lyrandis.core.fields import FieldNote, field_notes, is_on
from lyrandis.core.findings import Said, Value
from lyrandis.core.history import ABOUT_ONE, Change, Entry, UnreadEntry, fates, plain_value
from lyrandis.core.parts import SLOT_NAMES
from lyrandis.core.route import STATIONS
from lyrandis.core.trials import MEASURED
from lyrandis.core.units import QUANTITIES
from lyrandis.core.words import NOT_SET


@dataclass
class _Line:
    """A sentence while it is put together: its values and the archer's words, each in a slot."""

    values: dict[str, Value] = field(default_factory=dict)
    words: dict[str, str] = field(default_factory=dict)
    notes: Mapping[str, FieldNote] = field(default_factory=field_notes)

    def word(self, text: str) -> str:
        """The slot in which a piece of text stands as it is."""
        name = f"w{len(self.words)}"
        self.words[name] = text
        return f"{{{name}}}"

    def value(self, number: float, quantity: str) -> str:
        """The slot of a value."""
        name = f"v{len(self.values)}"
        self.values[name] = Value(value=number, quantity=quantity)
        return f"{{{name}}}"

    def said(self, said: Said) -> str:
        """The text of a sentence whose slots become this line's."""
        moved = said.renamed(f"s{len(self.values)}_{len(self.words)}_")
        self.values |= moved.values
        self.words |= moved.words
        return moved.text

    def shown(self, change: Change, value: Any) -> str:
        """A setting's value, before or after."""
        note = self.notes.get(change.path)
        quantity = note.quantity if note and note.quantity in QUANTITIES else None
        if value is None or value == "" or value == []:
            return NOT_SET
        if quantity and isinstance(value, int | float) and not isinstance(value, bool):
            return self.value(float(value), quantity)
        if isinstance(value, list):
            return f"{len(value)} {'entry' if len(value) == 1 else 'entries'}"
        key = str(value).lower() if isinstance(value, bool) else str(value)
        return self.word(note.words.get(key, key) if note else key)

    def list_change(self, before: list[Any], after: list[Any]) -> str:
        """What came to a list of words and what went from it; empty for any other list."""
        if not all(isinstance(v, str) for v in [*before, *after]):
            return ""
        came = [self.word(v.replace("_", " ")) for v in after if v not in before]
        went = [self.word(v.replace("_", " ")) for v in before if v not in after]
        parts = ["added " + ", ".join(came)] if came else []
        return "; ".join([*parts, "took out " + ", ".join(went)] if went else parts)

    def change(self, change: Change) -> str:
        """One setting's change."""
        note = self.notes.get(change.path)
        title = note.title if note else self.word(change.path)
        title = title[0].lower() + title[1:]
        before, after = change.before, change.after
        if isinstance(before, list | None) and isinstance(after, list | None):
            named = self.list_change(before or [], after or [])
            if named:
                return f"{title}: {named}"
        was, now = self.shown(change, before), self.shown(change, after)
        if before in (None, "", []):
            return f"{title} to {now}"
        if change.path in MEASURED and after in (None, []):
            return f"{title} is no longer so (it was {was})"
        if after in (None, "", []):
            return f"{title} back to {NOT_SET} (it was {was})"
        return f"{title} from {was} to {now}"

    def adjusted(self, entry: Entry) -> str:
        """All that an entry set."""
        put_on = [f"put on the {SLOT_NAMES[p.slot]} “{self.word(p.name)}”" for p in entry.parts]
        settings = [self.change(c) for c in entry.changes if not is_on(c.path)]
        return "; ".join([*put_on, *settings])

    def made(self, entry: Entry, about: Mapping[int, Entry]) -> str:
        """What an entry did, as it would be taken back or done again."""
        if isinstance(entry, UnreadEntry):
            return "an entry that this version cannot read"
        parts = []
        trial = entry.trial
        if trial is None and entry.about is not None and entry.about in about:
            trial = about[entry.about].trial
        if trial is not None:
            word = {"strike": "struck out ", "restore": "took in again "}.get(entry.kind, "")
            put = "put right: " if entry.kind == "trial" and entry.about is not None else ""
            parts.append(f"{put}{word}{self.said(trial.said())}")
        made = self.adjusted(entry)
        if made:
            parts.append(made)
        return "; ".join(parts)

    def told(self, text: str, why: str) -> Said:
        """The finished sentence, with its reason."""
        reason = why.strip().rstrip(".")
        because = f", because: {self.word(reason)}" if reason else ""
        return Said(text=f"{text}{because}.", values=self.values, words=self.words)


def setting_said(path: str, value: Any) -> Said:
    """The value of a rig's setting as a piece of a sentence."""
    line = _Line()
    text = line.shown(Change(path=path), plain_value(value))
    return Said(text=text, values=line.values, words=line.words)


def changes_said(
    verb: str, changes: Sequence[Change], notes: Mapping[str, FieldNote], why: str
) -> Said:
    """Changes of settings as a sentence that begins with `verb`, with its reason.

    Parameters
    ----------
    notes : of the settings, by path
    """
    line = _Line(notes=notes)
    return line.told(verb + "; ".join(line.change(c) for c in changes), why)


def entry_said(entry: Entry, others: Mapping[int, Entry], acted: Entry | None = None) -> Said:
    """One entry as a sentence.

    Parameters
    ----------
    others : by their number the entries that hold the trials which this one (or `acted`) is about
    acted : the entry that an undo took back or a redo did again
    """
    line = _Line()
    if acted is not None:
        word = "Took back" if entry.kind == "undo" else "Did again"
        text = f"{word}: {line.made(acted, others) or 'a check'}"
    else:
        text = _did(entry, line, others)
    return line.told(text, entry.why)


def sentences(entries: Sequence[Entry]) -> list[Said]:
    """Each entry of a whole history as a sentence, in the order given."""
    logged = {e.seq: e for e in entries if e.trial is not None}
    acts_on = fates(e.kind for e in entries).acts_on
    return [
        entry_said(entry, logged, entries[acts_on[i]] if i in acts_on else None)
        for i, entry in enumerate(entries)
    ]


def _did(entry: Entry, line: _Line, logged: Mapping[int, Entry]) -> str:
    """What an entry that is neither an undo nor a redo did, without its reason."""
    if isinstance(entry, UnreadEntry):
        return "Here stands an entry that this version cannot read"
    place = STATIONS[entry.station].title if entry.station in STATIONS else "the rig"
    if entry.kind == "check":
        held = "is settled" if entry.standing == "settled" else "holds for now"
        return f"Checked {place}: it {held}"
    if entry.kind in ("trial", *ABOUT_ONE):
        made = line.made(entry, logged)
        return made[:1].upper() + made[1:]
    made = line.adjusted(entry)
    if entry.parts:
        return made[:1].upper() + made[1:]
    return f"Set {made}" if made else f"Kept {place} as it was"
