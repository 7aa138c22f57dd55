"""What belongs to the folder outlives the data in it; a rig's uid outlives the folder."""

import io

import pytest
from sqlalchemy import insert, select, text
from sqlalchemy.exc import OperationalError

from lyrandis.core.parts import Rig
from lyrandis.files.rig_json import read_rig, rig_text
from lyrandis.store.database import FILE_NAME, backup, closed_after, engine_of, open_database
from lyrandis.store.devices import Devices
from lyrandis.store.identity import identity_of, raise_generation
from lyrandis.store.restore import restore
from lyrandis.store.rigs import RigStore
from lyrandis.store.tables import DeviceRow

DEVICE = {"digest": "a" * 64, "name": "Phone", "made_at": "2026-06-01", "seen_at": "2026-06-01"}


def told(folder):
    with closed_after(open_database(folder)) as engine, engine.connect() as connection:
        devices = connection.execute(select(DeviceRow.digest, DeviceRow.gone_at)).all()
        return identity_of(engine), [tuple(row) for row in devices]


def let_in(folder, **device):
    with closed_after(open_database(folder)) as engine, engine.begin() as connection:
        connection.execute(insert(DeviceRow).values(**(DEVICE | device)))


def test_a_folder_has_an_id_of_its_own_for_good(tmp_path):
    one, two = told(tmp_path / "one")[0], told(tmp_path / "two")[0]
    assert one.id != two.id
    assert told(tmp_path / "one")[0] == one
    assert one.text == f"{one.id}.1"


def test_what_is_put_back_raises_the_generation_and_signs_nobody_in_or_out(tmp_path):
    folder, other = tmp_path / "own", tmp_path / "other"
    let_in(folder, digest="a" * 64)
    old = tmp_path / "old.db"
    backup(folder, old)
    let_in(folder, digest="b" * 64)
    with closed_after(open_database(folder)) as engine, engine.begin() as connection:
        connection.execute(text("UPDATE devices SET gone_at = 'today' WHERE digest LIKE 'a%'"))
    before, devices = told(folder)
    restore(folder, old)
    after, still = told(folder)
    assert (after.id, after.generation) == (before.id, before.generation + 1)
    assert still == devices == [("a" * 64, "today"), ("b" * 64, None)]
    # Another folder's data comes without its devices, and the folder stays itself.
    let_in(other, digest="c" * 64)
    backup(other, tmp_path / "others.db")
    restore(folder, tmp_path / "others.db")
    assert told(folder)[0].id == before.id
    assert told(folder)[1] == devices


def test_put_back_over_what_cannot_be_read_lets_nobody_in(tmp_path):
    folder = tmp_path / "own"
    let_in(folder)
    backup(folder, tmp_path / "old.db")
    before = told(folder)[0]
    (folder / FILE_NAME).write_bytes(b"no database at all" * 500)
    restore(folder, tmp_path / "old.db")
    after, devices = told(folder)
    assert devices == []
    assert after.generation > before.generation


@pytest.fixture
def store(tmp_path):
    with closed_after(open_database(tmp_path / "own")) as engine:
        yield RigStore(engine)


def test_data_from_elsewhere_raises_the_generation(store):
    before = identity_of(store.engine).generation
    raise_generation(store.engine)
    assert identity_of(store.engine).generation == before + 1


def test_a_rig_of_a_file_is_the_same_in_a_folder_without_it(store, tmp_path):
    rig = store.create(Rig(name="Own"))
    kept = store.keep(rig.id, 0, {"notes": "windy"})
    _, d = store.documents(rig.id)
    file = "".join(rig_text(d.created_at, d.base, d.parts, d.entries, d.uid)).encode()
    read = read_rig(io.BytesIO(file))
    with closed_after(open_database(tmp_path / "elsewhere")) as engine:
        taken = RigStore(engine).create(
            read.base, read.entries, read.created_at, read.parts, uid=read.uid
        )
        elsewhere = RigStore(engine).digests(taken.id, [0, 1])
        assert taken.uid == kept.uid
        assert elsewhere == store.digests(rig.id, [0, 1])
    here = store.create(read.base, read.entries, read.created_at, read.parts, uid=read.uid)
    assert here.uid != kept.uid


def test_rigs_that_had_none_are_given_one_each(tmp_path, store):
    store.create(Rig(name="One"))
    store.create(Rig(name="Two"))
    with closed_after(engine_of(tmp_path / "own" / FILE_NAME)) as engine, engine.begin() as old:
        for drop in ("DROP INDEX ix_rigs_uid", "ALTER TABLE rigs DROP COLUMN uid",
                     "DROP TABLE folder", "DROP TABLE devices",
                     "ALTER TABLE parts DROP COLUMN present_form",
                     "ALTER TABLE part_entries DROP COLUMN form"):  # fmt: skip
            old.execute(text(drop))
        old.execute(text("UPDATE alembic_version SET version_num = '0006'"))
    with closed_after(open_database(tmp_path / "own")) as engine:
        uids = {kept.uid for kept in RigStore(engine).all()}
        assert len(uids) == 2
        assert all(len(uid) == 32 for uid in uids)


def test_a_device_is_seen_every_ten_minutes_and_reads_on_where_nothing_can_be_written(
    store, monkeypatch
):
    now = ["2026-06-01T10:00:00+00:00"]
    devices = Devices(lambda: store.engine, lambda: now[0])
    secret = devices.let_in("Phone")
    now[0] = "2026-06-01T10:09:00+00:00"
    devices.of(secret)
    assert devices.all()[0].seen_at == "2026-06-01T10:00:00+00:00"
    now[0] = "2026-06-01T10:11:00+00:00"

    def full(*_, **__):
        raise OperationalError("UPDATE", {}, Exception("the disk is full"))

    with monkeypatch.context() as no_room:
        no_room.setattr(devices, "_set", full)
        assert devices.of(secret).name == "Phone"
    assert devices.all()[0].seen_at != now[0]
    devices.of(secret)
    assert devices.all()[0].seen_at == now[0]
    assert devices.of(secret[:-1]) is None
