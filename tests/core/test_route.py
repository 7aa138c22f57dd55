"""The route's states, and the history from which they follow."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, field_notes, refused, value_at
from lyrandis.core.history import Change, Entry, changes_between, replay
from lyrandis.core.logbook import sentences
from lyrandis.core.parts import Rig
from lyrandis.core.route import READS, ROUTES, STATIONS, WATCHES, Mark, states
from lyrandis.core.trials import Trial

RIG = Rig()


def moved(rig=RIG, **paths):
    return changed(rig, {p.replace("__", "."): v for p, v in paths.items()})


def state(marks, rig, station):
    return next(s for s in states(marks, rig) if s.station == station)


class TestTheRouteAsData:
    @pytest.mark.parametrize("route", ROUTES.values(), ids=ROUTES)
    def test_dependencies_point_upstream_and_are_known(self, route):
        order = route.stops
        owner = {path: s.id for s in STATIONS.values() for path in s.settings}
        source = {"draw": "archer.draw_length_in", "brace": "bow.brace_height_in",
                  "nock": "nock_height_mm", "weight": "bow.marked_weight_lbf",
                  "arrow_mass": "arrow.point_gr", "length": "bow.length_in"}  # fmt: skip
        for watch in WATCHES:
            assert watch.station in STATIONS
            assert watch.read in READS
            if watch.read in source and watch.station in order:
                upstream = owner[source[watch.read]]
                assert order.index(upstream) < order.index(watch.station)

    def test_every_setting_is_kept_at_one_station(self):
        paths = [p for s in STATIONS.values() for p in s.settings]
        assert len(paths) == len(set(paths))
        assert set(paths) <= set(field_notes())

    def test_every_watch_says_what_to_do(self):
        assert all(len(w.then) > 10 for w in WATCHES)


class TestStates:
    def test_open_until_something_is_kept(self):
        assert {s.state for s in states([], RIG)} == {"open"}

    @pytest.mark.parametrize("standing", ["provisional", "settled"])
    def test_as_the_archer_said(self, standing):
        marks = [Mark("brace", standing, RIG)]
        assert state(marks, RIG, "brace").state == standing

    @pytest.mark.parametrize(
        ("station", "change", "due"),
        [
            ("crawls", {"bow__brace_height_in": 8.25}, True),
            ("crawls", {"bow__brace_height_in": 8.45}, False),
            ("crawls", {"arrow__point_gr": 115.0}, False),
            ("crawls", {"arrow__point_gr": 125.0}, True),
            ("arrow", {"archer__draw_length_in": 28.5}, True),
            ("arrow", {"archer__draw_length_in": 28.125}, False),
            ("arrow", {"bow__side_plate": "leather"}, True),
            ("nock-point", {"archer__release": "split"}, True),
            ("string", {"bow__marked_weight_lbf": 44.0}, True),
            ("string", {"bow__marked_weight_lbf": 38.0}, False),
            ("brace", {"string__material": "low_stretch"}, True),
            ("weight", {"bow__length_in": 66.0}, True),
            ("draw", {"bow__length_in": 60.0}, False),
        ],
    )
    def test_due_beyond_the_threshold_only(self, station, change, due):
        seen = state([Mark(station, "settled", RIG)], moved(**change), station)
        assert (seen.state == "due") is due
        assert bool(seen.reasons) is due

    def test_the_reason_says_what_moved_by_how_much_and_what_to_do(self):
        seen = state([Mark("crawls", "settled", RIG)], moved(bow__brace_height_in=8.25), "crawls")
        assert seen.moved == ["brace height"]
        assert seen.reasons[0].plain() == (
            "The brace height went down by 1/4 in: read the nock height and the flight before "
            "trusting the crawls."
        )

    def test_small_changes_add_up(self):
        marks = [Mark("crawls", "settled", RIG)]
        rig = RIG
        for height in (8.45, 8.4, 8.36):
            rig = moved(rig, bow__brace_height_in=height)
            marks.append(Mark("brace", "provisional", rig))
        assert state(marks, rig, "crawls").state == "due"

    def test_a_check_settles_it_again(self):
        rig = moved(bow__brace_height_in=8.0)
        marks = [Mark("crawls", "settled", RIG), Mark("crawls", "provisional", rig)]
        assert state(marks, rig, "crawls").state == "provisional"

    def test_setting_something_for_the_first_time_counts(self):
        marks = [Mark("crawls", "settled", RIG)]
        assert state(marks, moved(nock_height_mm=14.0), "crawls").state == "due"

    def test_going_back_is_no_longer_due(self):
        away = moved(bow__brace_height_in=8.0)
        marks = [Mark("crawls", "settled", RIG), Mark("brace", "settled", away)]
        assert state(marks, RIG, "crawls").state == "settled"


def keep(seq, rig, station="brace", **paths):
    wanted = {p.replace("__", "."): v for p, v in paths.items()}
    return Entry(seq=seq, kind="adjust", at="2026-05-01T10:00:00+00:00", station=station,
                 standing="provisional", changes=changes_between(rig, wanted))  # fmt: skip


def back(seq, kind="undo"):
    return Entry(seq=seq, kind=kind, at="2026-05-01T11:00:00+00:00")


class TestHistory:
    one = keep(1, RIG, bow__brace_height_in=8.0)
    two = keep(2, moved(bow__brace_height_in=8.0), bow__brace_height_in=8.5, string__strands=16)

    def test_replay_gives_the_present(self):
        present = replay(RIG, [self.one, self.two])
        assert present.rig.bow.brace_height_in == 8.5
        assert present.rig.string.strands == 16
        assert present.undoable.seq == 2
        assert present.redoable is None
        assert [m.rig.bow.brace_height_in for m in present.marks] == [8.5]

    def test_undo_and_redo_walk_the_stack(self):
        there = [self.one, self.two, back(3), back(4)]
        assert replay(RIG, there).rig == RIG
        assert replay(RIG, there).redoable.seq == 1
        again = replay(RIG, [*there, back(5, "redo")])
        assert again.rig.bow.brace_height_in == 8.0
        assert again.redoable.seq == 2

    def test_a_new_change_ends_what_could_be_done_again(self):
        entries = [self.one, back(2), keep(3, RIG, bow__length_in=66)]
        present = replay(RIG, entries)
        assert present.redoable is None
        assert present.rig.bow.brace_height_in is None

    def test_undo_of_nothing_is_nothing(self):
        assert replay(RIG, [back(1), back(2, "redo")]).rig == RIG

    @given(st.lists(st.sampled_from(["adjust", "undo", "redo"]), max_size=25))
    def test_any_walk_replays_like_a_stack(self, kinds):
        entries, done, undone, rig = [], [], [], RIG
        for i, kind in enumerate(kinds):
            if kind == "adjust":
                entry = keep(i + 1, rig, string__strands=8 + i % 20)
                done.append(rig)
                undone.clear()
                rig = moved(rig, string__strands=8 + i % 20)
            else:
                entry = back(i + 1, kind)
                source, target = (done, undone) if kind == "undo" else (undone, done)
                if source:
                    target.append(rig)
                    rig = source.pop()
            entries.append(entry)
        assert replay(RIG, entries).rig == rig

    def test_only_real_changes_are_written(self):
        assert changes_between(RIG, {"bow.length_in": 68.0}) == ()
        made = changes_between(RIG, {"bow.length_in": 66, "string.strands": 14})
        assert made == (Change(path="bow.length_in", before=68, after=66.0),)

    def test_a_bad_entry_is_named_by_its_place(self):
        bad = Entry(
            seq=2,
            kind="adjust",
            at="2026-05-01T10:00:00+00:00",
            changes=(Change(path="bow.length_in", after=3),),
        )
        with pytest.raises(RefusedError) as caught:
            replay(RIG, [self.one, bad])
        assert caught.value.field == "entries.1.bow.length_in"

    def test_sentences(self):
        check = Entry(
            seq=3,
            kind="check",
            at="2026-05-01T10:00:00+00:00",
            station="crawls",
            standing="settled",
        )
        why = self.one.model_copy(update={"why": "quieter {here}."})
        told = [s.plain() for s in sentences([why, self.two, check, back(4), back(5, "redo")])]
        assert told == [
            "Set brace height to 8 in, because: quieter {here}.",
            "Set brace height from 8 in to 8 1/2 in; strands from 14 to 16.",
            "Checked Aim: it is settled.",
            "Took back: a check.",
            "Did again: a check.",
        ]

    def test_sentences_for_lists_words_and_what_was_cleared(self):
        entry = keep(1, RIG, aim__distances_m=[10, 20], bow__takedown=False)
        assert sentences([entry])[0].plain() == (
            "Set distances from 10 entries to 2 entries; construction from takedown to one piece."
        )
        cleared = Entry(seq=1, kind="adjust", at="2026-05-01T10:00:00+00:00", changes=(Change(path="nock_height_mm", before=12.7, after=None),))  # fmt: skip
        assert "back to not set (it was 1/2 in)" in sentences([cleared])[0].plain()
        assert sentences([keep(1, RIG)])[0].plain() == "Kept Brace as it was."


class TestFields:
    @pytest.mark.parametrize(
        ("path", "value", "words"),
        [
            ("bow.length_in", 3, ["Bow length", "at least 40 in", "3 in was given"]),
            ("bow.length_in", 300, ["at most 76 in"]),
            ("bow.length_in", 1e300, ["at most 76 in; 1e+300 in was given"]),
            ("bow.length_in", float("-inf"), ["Bow length"]),
            ("bow.length_in", "long", ["must be a number;", "long"]),
            ("bow.form", "crossbow", ["Form", "recurve"]),
            ("arrow.weighed_gr", -4, ["Weighed arrow", "50 gr"]),
            ("aim.distances_m", [], ["Distances", "at least 1"]),
            ("aim.distances_m", list(range(2, 101)), ["at most 60"]),
            ("name", "", ["at least 1"]),
            ("notes", "x" * 900, ["at most 200"]),
            ("string.strands", 14.5, ["Strands", "number"]),
            ("archer.draw_length_in", float("nan"), ["Draw length"]),
            ("archer.draw_length_in", None, ["Draw length"]),
            ("bow.colour", "red", ["not a setting"]),
        ],
    )
    def test_refusals_name_field_limit_unit_and_reason(self, path, value, words):
        with pytest.raises(RefusedError) as caught:
            changed(RIG, {path: value})
        assert caught.value.field == path
        for word in words:
            assert word in caught.value.reason

    @pytest.mark.parametrize(
        ("path", "value", "units", "said"),
        [
            ("bow.brace_height_in", 50 / 25.4, {"brace": "mm"}, "at least 76 mm; 50 mm was given"),
            ("bow.marked_weight_lbf", 200, {"weight": "kg"}, "at most 68 kg; 90.7 kg was given"),
            ("aim.distances_m", [-5], {"distance": "yd"}, "at least 0 yd; −5.5 yd was given"),
        ],
    )
    def test_refusals_are_told_in_the_archers_units(self, path, value, units, said):
        with pytest.raises(RefusedError) as caught:
            changed(RIG, {path: value})
        assert said in caught.value.said.plain(units)
        assert caught.value.at("elsewhere").said == caught.value.said

    def test_trials_are_refused_by_words_and_not_by_the_fields_names(self):
        with pytest.raises(ValidationError) as caught:
            TypeAdapter(Trial).validate_python({"kind": "hold", "weight_lbf": 500, "seconds": 9})
        told = refused(caught.value.errors()[0], ("body", "hold"))
        assert told.reason.startswith("Weight must be at most")
        assert "lbf" not in told.reason
        assert "500 lb was given" in told.reason

    def test_notes_carry_quantity_and_range(self):
        note = field_notes()["bow.length_in"]
        assert (note.quantity, note.low, note.high, note.optional) == ("bow_length", 40, 76, False)
        assert field_notes()["bow.form"].choices == ["longbow", "hybrid", "recurve", "static_tip"]
        assert field_notes()["nock_height_mm"].optional

    def test_numeric_settings_all_have_a_quantity_and_a_range(self):
        for note in field_notes().values():
            if note.path.endswith(("_in", "_mm", "_gr", "_lbf", "_deg", "_cm", "_gpp")):
                assert note.quantity, note.path
                assert note.low is not None, note.path
                assert note.high is not None, note.path

    def test_value_at(self):
        assert value_at(RIG, "bow.length_in") == 68
        with pytest.raises(RefusedError):
            value_at(RIG, "bow")
