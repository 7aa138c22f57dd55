"""Backups are whole or absent; putting one back keeps what it replaces; looking over finds faults."""

import os
import shutil
import socket
import sqlite3
import stat

import pytest
from earlier import old_folder
from typer.testing import CliRunner

from lyrandis.cli import app
from lyrandis.core.parts import Rig
from lyrandis.demo import folder as demo_folder
from lyrandis.store import database
from lyrandis.store.database import FILE_NAME
from lyrandis.store.folder import in_use
from lyrandis.store.restore import look_over, restore
from lyrandis.store.rigs import RigStore

runner = CliRunner()


def folder_with(path, *names):
    with database.closed_after(database.open_database(path)) as engine:
        for name in names:
            RigStore(engine).create(Rig(name=name))
    return path


def names_in(path):
    with database.closed_after(database.open_database(path)) as engine:
        return [kept.present.rig.name for kept in RigStore(engine).all()]


def at_a_free_port():
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return ["--port", str(s.getsockname()[1])]


def run(*words):
    port = at_a_free_port() if words[0] == "demo" else []
    told = runner.invoke(app, [*(str(w) for w in words), *port])
    return told.exit_code, " ".join(told.output.split())


@pytest.fixture
def mine(tmp_path):
    return folder_with(tmp_path / "mine", "One")


@pytest.fixture
def saved(tmp_path):
    target = tmp_path / "saved.db"
    database.backup(folder_with(tmp_path / "other", "Saved", "Too"), target)
    return target


def test_there_and_back_by_the_command_line(mine, saved):
    code, said = run("restore", saved, "--data", mine)
    assert code == 0
    assert "2 rigs" in said
    assert names_in(mine) == ["Saved", "Too"]
    (aside,) = mine.glob("replaced-*.db")
    assert str(aside) in said
    assert run("restore", aside, "--data", mine)[0] == 0
    assert names_in(mine) == ["One"]
    assert run("check", "--data", mine) == (0, f"1 rig All is well in {mine}")


def test_refused_while_a_server_runs_on_the_folder(mine, saved):
    with in_use(mine), in_use(mine):
        code, said = run("restore", saved, "--data", mine)
        assert code == 1
        assert "is running" in said
    assert names_in(mine) == ["One"]
    assert run("restore", saved, "--data", mine)[0] == 0


def test_a_log_left_behind_does_not_spoil_what_is_put_back(mine, saved):
    """The write-ahead log of a killed server belongs to what was there, and goes with it."""
    child = os.fork()
    if child == 0:
        store = RigStore(database.open_database(mine))
        store.create(Rig(name="Only in the log"))
        os._exit(9)
    os.waitpid(child, 0)
    assert (mine / f"{FILE_NAME}-wal").stat().st_size > 0
    assert run("restore", saved, "--data", mine)[0] == 0
    assert names_in(mine) == ["Saved", "Too"]
    (aside,) = mine.glob("replaced-*.db")
    assert run("restore", aside, "--data", mine)[0] == 0
    assert names_in(mine) == ["One", "Only in the log"]


def test_an_ordinary_stop_leaves_one_file(mine):
    assert [p.name for p in mine.glob(f"{FILE_NAME}*")] == [FILE_NAME]


def test_a_damaged_present_is_kept_as_it_lies_there(mine, saved):
    (mine / FILE_NAME).write_bytes(b"SQLite format 3\x00" + b"rubbish" * 2000)
    code, said = run("check", "--data", mine)
    assert code == 1
    assert "lyrandis restore" in said
    assert run("restore", saved, "--data", mine)[0] == 0
    assert names_in(mine) == ["Saved", "Too"]
    (aside,) = mine.glob("replaced-*.db")
    assert b"rubbish" in aside.read_bytes()


def spoil_page(file):
    data = bytearray(file.read_bytes())
    data[5000:9000] = b"\xff" * 4000
    file.write_bytes(bytes(data))


@pytest.mark.parametrize(
    ("spoil", "words"),
    [
        (lambda f: f.write_bytes(b""), "not a Lyrandis backup"),
        (lambda f: f.write_text("{}"), "not a Lyrandis backup"),
        (lambda f: f.write_bytes(f.read_bytes()[:6000]), "damaged|not a Lyrandis backup"),
        (spoil_page, "damaged"),
    ],
)
def test_what_is_no_whole_backup_changes_nothing(mine, saved, spoil, words):
    spoil(saved)
    code, said = run("restore", saved, "--data", mine)
    assert code == 1
    assert any(w in said for w in words.split("|"))
    assert names_in(mine) == ["One"]
    assert [p.name for p in mine.iterdir() if p.name.endswith((".db", ".part"))] == [FILE_NAME]


def test_a_foreign_database_and_a_newer_one_are_refused(mine, saved, tmp_path):
    raw = sqlite3.connect(tmp_path / "foreign.db")
    raw.execute("CREATE TABLE songs (id INTEGER)")
    raw.commit()
    raw.close()
    assert "not a Lyrandis backup" in run("restore", tmp_path / "foreign.db", "--data", mine)[1]
    raw = sqlite3.connect(saved)
    raw.execute("UPDATE alembic_version SET version_num = '9999'")
    raw.commit()
    raw.close()
    assert "newer" in run("restore", saved, "--data", mine)[1]
    assert run("restore", tmp_path / "nothing.db", "--data", mine)[0] == 1
    assert names_in(mine) == ["One"]


def test_a_backup_never_overwrites_another_kind_of_file(mine, tmp_path):
    letter = tmp_path / "letter.txt"
    letter.write_text("Dear Ilse")
    code, said = run("backup", letter, "--data", mine)
    assert code == 1
    assert "no Lyrandis backup" in said
    assert letter.read_text() == "Dear Ilse"
    target = tmp_path / "copy.db"
    assert run("backup", target, "--data", mine)[0] == 0
    assert run("backup", target, "--data", mine)[0] == 0  # an older backup is replaced
    assert look_over(target).rigs == 1


def test_a_backup_that_fails_leaves_nothing(mine, tmp_path, monkeypatch):
    def full(*_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(database, "copy", full)
    code, said = run("backup", tmp_path / "copy.db", "--data", mine)
    assert code == 1
    assert "No space left" in said
    assert not list(tmp_path.glob("*copy.db*"))


def test_looking_over_names_each_rig_that_cannot_be_read(mine):
    raw = sqlite3.connect(mine / FILE_NAME)
    raw.execute("UPDATE rigs SET base = json_set(base, '$.bow.colour', 'red')")
    raw.commit()
    raw.close()
    code, said = run("check", "--data", mine)
    assert code == 1
    assert "Cannot be read: One" in said
    assert "colour" in said


class TestFolder:
    def test_only_its_owner_looks_into_it(self, mine, tmp_path):
        def mode(path):
            return stat.S_IMODE(path.stat().st_mode)

        assert mode(mine) == 0o700
        assert mode(mine / FILE_NAME) == 0o600
        target = tmp_path / "copy.db"
        database.backup(mine, target)
        assert mode(target) == 0o600
        mine.chmod(0o755)
        (mine / FILE_NAME).chmod(0o644)
        names_in(mine)
        assert (mode(mine), mode(mine / FILE_NAME)) == (0o700, 0o600)

    def test_a_folder_of_other_things_stays_as_open_as_it_is(self, tmp_path):
        shared = tmp_path / "shared"
        shared.mkdir()
        (shared / "letter.txt").write_text("x")
        shared.chmod(0o755)
        database.open_database(shared).dispose()
        assert stat.S_IMODE(shared.stat().st_mode) == 0o755


class TestDemo:
    def test_an_archers_folder_is_never_touched(self, mine):
        for words in (["--reset"], []):
            code, said = run("demo", *words, "--data", mine)
            assert code == 1
            assert "did not make" in said
        assert names_in(mine) == ["One"]

    @pytest.fixture
    def unmarked(self, tmp_path, demo_rigs):
        """Makes a folder as an earlier demo left it."""

        def make(name):
            (tmp_path / name).mkdir()
            shutil.copy(demo_rigs / FILE_NAME, tmp_path / name)

        return make

    def test_an_earlier_demos_folder_is_taken_over(self, tmp_path, unmarked):
        unmarked("old")
        demo_folder.prepare(tmp_path / "old", False)
        assert len(names_in(tmp_path / "old")) == 3
        unmarked("mixed")
        folder_with(tmp_path / "mixed", "Mine")
        with pytest.raises(demo_folder.NotTheDemosError):
            demo_folder.prepare(tmp_path / "mixed", True)

    def test_reset_brings_it_back_and_waits_for_no_server(self, tmp_path, demo_rigs):
        shutil.copytree(demo_rigs, tmp_path, dirs_exist_ok=True)
        folder_with(tmp_path, "Played with")
        demo_folder.prepare(tmp_path, False)
        assert len(names_in(tmp_path)) == 4
        with in_use(tmp_path):
            assert "is running" in run("demo", "--reset", "--data", tmp_path)[1]
        demo_folder.prepare(tmp_path, False)
        assert len(names_in(tmp_path)) == 4  # what was refused is not made up for later
        demo_folder.prepare(tmp_path, True)
        assert len(names_in(tmp_path)) == 3
        assert not list(tmp_path.glob("replaced-*"))


def test_a_start_that_cannot_be_says_what_to_do_in_three_lines(tmp_path):
    folder = tmp_path / "here"
    folder.mkdir()
    (folder / FILE_NAME).write_bytes(b"no database" * 100)
    told = runner.invoke(app, ["serve", *at_a_free_port(), "--data", str(folder)])
    assert told.exit_code == 1
    assert "lyrandis restore FILE" in told.output
    assert len(told.output.strip().split("\n")) == 3
    blocked = tmp_path / "file"
    blocked.write_text("x")
    told = runner.invoke(app, ["serve", *at_a_free_port(), "--data", str(blocked / "inside")])
    assert told.exit_code == 1
    assert len(told.output.strip().split("\n")) == 3


def test_a_backup_of_an_earlier_version_comes_up(mine, tmp_path):
    old = old_folder(tmp_path / "old")
    code, said = run("restore", old / FILE_NAME, "--data", mine)
    assert code == 0, said
    assert names_in(mine) == ["Old"]


def test_a_restore_in_the_way_of_the_first_data(tmp_path, saved):
    aside, found = restore(tmp_path / "fresh", saved)
    assert aside is None
    assert found.whole
    assert names_in(tmp_path / "fresh") == ["Saved", "Too"]
