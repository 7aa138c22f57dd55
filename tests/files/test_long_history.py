"""What can be kept goes out and comes back, however long it is, in bounded memory."""

import io
import json
import tracemalloc

import pytest

from claims import ALL
from lyrandis.core.errors import RefusedError
from lyrandis.core.history import MOST_ENTRIES, Change, Entry
from lyrandis.core.parts import Rig
from lyrandis.desk.rigs import Desk
from lyrandis.files.rig_json import read_rig, rig_text
from lyrandis.store.database import open_database
from rig_files import write_rig

ENTRIES = 25_000 if ALL else 5_000
AT = "2026-05-01T09:00:00+00:00"
RIG = Rig(name="Long kept")


def adjust(seq):
    changes = (Change(path="bow.brace_height_in", before=None, after=8 + seq % 50 / 100),)
    return Entry(seq=seq, kind="adjust", at=AT, station="brace", standing="settled", why="so",
                 changes=changes)  # fmt: skip


def never():
    return None


def test_out_and_in_however_long(tmp_path):
    desk = Desk(open_database(tmp_path), lambda: AT)
    made = desk.add(RIG.model_dump(mode="json"), AT, map(adjust, range(1, ENTRIES + 1)))
    name, pieces = desk.file(made)
    text = "".join(pieces)
    assert name == "Long kept"
    assert len(text) > 320 * ENTRIES
    taken = desk.take_in(io.BytesIO(text.encode()), never)
    assert taken.seq == ENTRIES
    assert taken.present.rig == desk.get(made).present.rig
    again = "".join(desk.file(taken.id)[1])
    assert again == text.replace(desk.get(made).uid, taken.uid)  # two rigs of one folder are two
    desk.engine.dispose()


def test_reading_costs_memory_for_entries_not_for_the_file():
    """Text ten times as long for as many entries takes little more."""

    def peak(filler):
        entries = [adjust(i).model_dump(mode="json") for i in range(1, 2001)]
        text = "".join(rig_text(AT, RIG.model_dump(mode="json"), {}, entries))
        data = text.replace('"why": "so"', f'"why":{" " * filler}"so"').encode()
        tracemalloc.start()
        read_rig(io.BytesIO(data), never)
        most = tracemalloc.get_traced_memory()[1]
        tracemalloc.stop()
        return most

    assert peak(5000) < 2 * peak(0)


def test_reading_can_be_stopped():
    class StoppedError(Exception):
        pass

    calls = []

    def heed():
        calls.append(1)
        if len(calls) > 3:
            raise StoppedError

    text = write_rig(RIG, map(adjust, range(1, 1001)), AT)
    with pytest.raises(StoppedError):
        read_rig(text.encode(), heed)


def spoilt(**changes):
    entry = adjust(1).model_dump(mode="json") | changes
    return "".join(rig_text(AT, RIG.model_dump(mode="json"), {}, [entry])).encode()


@pytest.mark.parametrize(
    ("changes", "field", "words"),
    [
        ({"at": "yesterday"}, "entries.0.at", "zone"),
        ({"at": "2026-05-01"}, "entries.0.at", "zone"),
        ({"at": "2026-05-01T10:00:00"}, "entries.0.at", "zone"),
        ({"at": "2026-13-41T10:00:00Z"}, "entries.0.at", "calendar"),
        ({"at": "9999-12-31T10:00:00Z"}, "entries.0.at", "2100"),
        ({"station": "kitchen"}, "entries.0.station", "kitchen"),
        ({"standing": "perhaps"}, "entries.0.standing", "settled"),
        ({"kind": "undo", "changes": []}, "entries.0.kind", "nothing to take back"),
        ({"kind": "redo", "changes": []}, "entries.0.kind", "nothing to do again"),
        ({"why": "x" * 501}, "entries.0.why", "at most 500"),
        ({"changes": [{"path": "bow.length_in", "before": [[]] * 2, "after": 10**30}]},
         "file", "damaged"),
        ({"changes": [{"path": "taste", "before": {"a": [[[[]]]]}, "after": 2}]},
         "entries.0.taste", "at most 1"),
        ({"trial": {"kind": "hold", "weight_lbf": 36, "seconds": 9, "day": "2026-02-30"}},
         "entries.0.trial.day", "calendar"),
        ({"trial": {"kind": "settling", "hours": -1, "brace_height_in": 7}},
         "entries.0.trial.hours", "at least 0"),
    ],
)  # fmt: skip
def test_what_is_taken_in_is_checked_as_strictly_as_what_is_typed(changes, field, words):
    with pytest.raises(RefusedError) as caught:
        read_rig(spoilt(**changes))
    assert caught.value.field == field
    assert words in caught.value.reason


@pytest.mark.parametrize("number", ["1e400", "-1e999", "NaN", "Infinity"])
@pytest.mark.parametrize("place", ['"after": 8.01', '"length_in": 68.0'])
def test_numbers_that_are_not_finite_are_no_numbers(number, place):
    name = place.partition(":")[0]
    text = spoilt().decode()
    assert place in text
    with pytest.raises(RefusedError):
        read_rig(text.replace(place, f"{name}: {number}").encode())


def test_half_a_sign_does_not_come_in():
    read = read_rig(spoilt().replace(b'"why": "so"', b'"why": "\\ud800"'))
    read.entries[0].why.encode()


@pytest.mark.parametrize(
    "text",
    [
        '{"format": "lyrandis-rig", "version": 2}',
        '{"format": "lyrandis-rig", "version": 2, "entries": 5, "base": {}, "created_at": "' + AT + '"}',
        '{"format": "lyrandis-rig", "version": true, "entries": []}',
        '{"format": "lyrandis-rig", "version": [[[[[[]]]]]], "entries": []}',
        '{"format": "lyrandis-rig", "version": 2, "entries": [' + "[" * 2000 + "]" * 2000 + "]}",
        '{"format": "lyrandis-rig", "version": 2, "base": ' + "[" * 2000 + "]" * 2000 + ', "entries": []}',
        '{"format": "lyrandis-rig", "version": 2, "base": "' + "x" * 5_000_000 + '", "entries": []}',
        '{"format": "lyrandis-rig", "version": 2, "base": [' + "1," * 60_000 + '1], "entries": []}',
        "null",
        "5",
        "",
        "\x00",
    ],
)  # fmt: skip
def test_odd_files_are_refused(text):
    with pytest.raises(RefusedError):
        read_rig(text.encode())


def test_a_full_history_is_told(tmp_path):
    desk = Desk(open_database(tmp_path), lambda: AT)
    id = desk.create(RIG).id
    with desk.engine.begin() as connection:
        connection.exec_driver_sql(
            "INSERT INTO entries (rig_id, seq, kind, at, why, changes) VALUES "
            f"({id}, {MOST_ENTRIES}, 'check', '{AT}', '', '[]')"
        )
    with pytest.raises(RefusedError, match="full"):
        desk.keep(id, MOST_ENTRIES, {"string.strands": 12}, "string")
    desk.engine.dispose()


def test_the_text_is_json_with_and_without_entries():
    for entries in ([], [adjust(1)], [adjust(1), adjust(2)]):
        document = json.loads(write_rig(RIG, entries, AT))
        assert len(document["entries"]) == len(entries)
