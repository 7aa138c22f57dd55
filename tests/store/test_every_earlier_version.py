"""Databases and files of every earlier version come up whole, whatever was done in them."""

import json

import pytest
from alembic import command
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy import text

from claims import share
from lyrandis.core.history import replay
from lyrandis.core.measured import untrue
from lyrandis.core.parts import Rig, differing
from lyrandis.core.trials import MEASURED
from lyrandis.files.rig_json import read_rig
from lyrandis.store import database, derived, rack
from lyrandis.store.rigs import RigStore

AT = "2026-01-01T10:{:02d}:00+00:00"
SETTINGS = {
    "archer.draw_length_in": [27.0, 28.5],
    "archer.name": ["Ilse", ""],
    "bow.takedown": [True, False],
    "bow.measured": [[], [[24.0, 27.0], [28.0, 36.0]]],
    "bow.brace_height_in": [8.0, 9.4],
    "string.material": ["polyester", "low_stretch"],
    "string.mass_gr": [None, 92.0],
    "string.twists": [None, 24],
    "arrow.weighed_gr": [None, 371.0],
    "arrow.point_gr": [100.0, 125.0],
}
CHANGE = st.sampled_from(sorted(SETTINGS)).flatmap(
    lambda path: st.tuples(st.just(path), st.sampled_from(SETTINGS[path]))
)
ACT = st.one_of(
    st.lists(CHANGE, min_size=1, max_size=3, unique_by=lambda c: c[0]),
    st.sampled_from(["undo", "redo", "scale", "check"]),
)
BASE = st.fixed_dictionaries(
    {"name": st.sampled_from(["Old", "x" * 80])},
    optional={
        "bow": st.sampled_from(
            [{"takedown": False, "length_in": 62}, {"measured": [[28.0, 35.0]]}]
        ),
        "arrow": st.just({"weighed_gr": 380.0}),
        "string": st.just({"mass_gr": 88.0, "strands": 16}),
    },
)


def entries_of(acts, form):
    """A history as a version with that form wrote it; what could not have been done is left out."""
    written, done, undone = [], 0, 0
    for act in acts:
        entry = {"seq": len(written) + 1, "at": AT.format(len(written) % 60)}
        if act == "undo":
            if not done:
                continue
            done, undone = done - 1, undone + 1
            entry["kind"] = "undo"
        elif act == "redo":
            if not undone:
                continue
            done, undone = done + 1, undone - 1
            entry["kind"] = "redo"
        else:
            done, undone = done + 1, 0
            if act == "check":
                entry |= {"kind": "check", "station": "brace", "standing": "settled"}
            elif act == "scale" and form > 1:
                readings = [[20.0, 18.0], [28.0, 35.5]]
                entry |= {"kind": "trial", "station": "weight", "standing": "settled",
                          "trial": {"kind": "weighing", "readings": readings},
                          "changes": [{"path": "bow.measured", "after": readings}]}  # fmt: skip
            else:
                changes = [] if isinstance(act, str) else act
                entry |= {"kind": "adjust", "station": "arrow", "standing": "provisional",
                          "changes": [{"path": p, "after": v} for p, v in changes]}  # fmt: skip
        written.append(entry)
    return written


def whole(kept, store):
    """Parts for every slot that say what the rig says, and nothing measured that does not hold."""
    rig = kept.present.rig
    assert set(kept.parts) == set(rig.on.slots()) != set()
    for slot, part in kept.parts.items():
        apart = differing(rig, slot, part.part)
        assert {p for p in apart if not p.startswith("bow.")} == set(), slot
    assert untrue(rig, kept.known) == {}
    with store.engine.connect() as connection:
        assert list(derived.unlike_their_history(connection)) == []
        assert list(rack.faults(connection)) == []


def alike(kept, base, entries):
    """The rig is what its plain history makes of it, but for what no longer holds as measured."""
    told = replay(base, entries).rig
    drop = {"on": True} | {s: {p.split(".")[1] for p in MEASURED if p.startswith(s)}
                           for s in ("bow", "arrow", "string")}  # fmt: skip
    assert kept.present.rig.model_dump(exclude=drop) == told.model_dump(exclude=drop)


@settings(max_examples=share(25, 8), suppress_health_check=list(HealthCheck), deadline=None)
@given(base=BASE, acts=st.lists(ACT, max_size=10), form=st.sampled_from([1, 2, 3, 4]))
def test_a_file_of_any_version_comes_in_whole(tmp_path_factory, base, acts, form):
    entries = entries_of(acts, form)
    document = {"format": "lyrandis-rig", "version": form, "created_at": AT.format(0),
                "base": base, "entries": entries}  # fmt: skip
    if form > 2:
        document["base"] = json.loads(Rig.model_validate(base).model_dump_json(exclude={"on"}))
    engine = database.open_database(tmp_path_factory.mktemp("file"))
    try:
        store = RigStore(engine)
        read = read_rig(json.dumps(document).encode())
        kept = store.create(read.base, read.entries, read.created_at, read.parts)
        whole(kept, store)
        alike(kept, read.base, read.entries)
    finally:
        engine.dispose()


REVISIONS = {"0001": 1, "0002": 2, "0003": 4}


@settings(max_examples=share(15, 6), suppress_health_check=list(HealthCheck), deadline=None)
@given(base=BASE, acts=st.lists(ACT, max_size=10), revision=st.sampled_from(sorted(REVISIONS)))
def test_a_database_of_any_version_comes_up_whole(tmp_path_factory, base, acts, revision):
    folder = tmp_path_factory.mktemp("db")
    form = REVISIONS[revision]
    entries = entries_of(acts, form)
    engine = database.engine_of(folder / database.FILE_NAME)
    config = database._config()
    with database.writing(engine) as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, revision)
        connection.execute(
            text("INSERT INTO rigs (id, base, created_at) VALUES (1, :base, :at)"),
            {"base": json.dumps(base), "at": AT.format(0)},
        )
        columns = "rig_id, seq, kind, at, station, standing, why, changes"
        values = ":rig, :seq, :kind, :at, :station, :standing, :why, :changes"
        if form > 1:
            columns, values = f"{columns}, trial", f"{values}, :trial"
        for entry in entries:
            trial = entry.get("trial")
            row = {
                "rig": 1, "seq": entry["seq"], "kind": entry["kind"], "at": entry["at"],
                "station": entry.get("station"), "standing": entry.get("standing"), "why": "",
                "changes": json.dumps(entry.get("changes", [])),
                "trial": json.dumps(trial) if trial else None,
            }  # fmt: skip
            if form == 1:
                row.pop("trial")
            connection.execute(text(f"INSERT INTO entries ({columns}) VALUES ({values})"), row)
    engine.dispose()
    engine = database.open_database(folder)
    try:
        store = RigStore(engine)
        kept = store.get(1)
        whole(kept, store)
        told = [e for e in store.entries(1) if e.seq <= len(entries)]
        alike(kept, kept.base, told)
        with pytest.raises(LookupError):
            store.get(2)
    finally:
        engine.dispose()
