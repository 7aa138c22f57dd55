"""Three routes as data: by bow and release, by choice, and what follows them."""

import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.fields import changed
from lyrandis.core.findings import Action
from lyrandis.core.parts import Rig
from lyrandis.core.route import ROUTES, STATIONS, Mark, by_bow, route_of, states
from lyrandis.core.route.tools import TOOLS
from lyrandis.core.schedule import schedule
from lyrandis.core.stations import TELLERS, notes, views

TAKEDOWN = Rig()
ONE_PIECE = changed(
    Rig(), {"bow.takedown": False, "bow.side_plate": "leather", "bow.centre_cut_mm": 0.0}
)
THUMB = changed(
    Rig(),
    {"bow.form": "static_tip", "bow.takedown": False, "bow.length_in": 56.0,
     "archer.release": "thumb", "bow.side_plate": "leather", "bow.centre_cut_mm": -6.0},
)  # fmt: skip
BOLT_DOWN = changed(
    Rig(), {"bow.form": "longbow", "bow.takedown": True, "bow.length_in": 66.0,
            "bow.side_plate": "leather", "bow.centre_cut_mm": 0.0},
)  # fmt: skip
ONE_PIECE_RECURVE = changed(Rig(), {"bow.takedown": False, "bow.length_in": 62.0,
                                    "bow.side_plate": "leather"})  # fmt: skip
SETTLED = "settled"


class TestWhichRoute:
    @pytest.mark.parametrize(
        ("rig", "route"),
        [(TAKEDOWN, "takedown"), (ONE_PIECE, "shelf"), (THUMB, "thumb"), (BOLT_DOWN, "shelf"),
         (ONE_PIECE_RECURVE, "shelf"),
         (changed(TAKEDOWN, {"bow.side_plate": "leather"}), "shelf"),
         (changed(TAKEDOWN, {"archer.release": "thumb"}), "thumb"),
         (changed(THUMB, {"archer.release": "split"}), "shelf")],
    )  # fmt: skip
    def test_it_follows_from_bow_and_release(self, rig, route):
        assert by_bow(rig).id == route_of(rig).id == route

    @pytest.mark.parametrize("route", ROUTES)
    def test_it_can_be_chosen_otherwise(self, route):
        for rig in (TAKEDOWN, ONE_PIECE, THUMB, BOLT_DOWN):
            assert route_of(changed(rig, {"route": route})).id == route

    def test_practices_order(self):
        """What practice names, in its order; what is not built yet does not stand there."""
        takedown = ["weight", "tiller", "in-line", "centre-shot", "weights", "final-tiller", "brace",
                    "crawls"]  # fmt: skip
        shelf = ["draw", "bow-length", "weight", "string", "brace", "nock-point", "arrow", "quiet",
                 "crawls"]  # fmt: skip
        for route, order in (("takedown", takedown), ("shelf", shelf), ("thumb", shelf)):
            stops = ROUTES[route].stops
            assert [s for s in stops if s in order] == order
            assert len(set(stops)) == len(stops)
        assert {s for r in ROUTES.values() for s in r.stops} == set(STATIONS) == set(TELLERS)

    def test_only_bows_with_a_riser_hang_weights_and_thumb_bows_measure_no_tiller(self):
        assert "weights" not in ROUTES["shelf"].stops
        assert not {"tiller", "final-tiller", "weights"} & set(ROUTES["thumb"].stops)


class TestWhatFollowsIt:
    @pytest.mark.parametrize("rig", [TAKEDOWN, ONE_PIECE, THUMB, BOLT_DOWN, ONE_PIECE_RECURVE])
    def test_stations_notes_and_states_stand_in_its_order(self, rig):
        stops = list(route_of(rig).stops)
        b = Bench(rig)
        assert [v.station for v in views(b)] == stops
        assert [n.station for n in notes(b)] == stops
        assert [s.station for s in states([], rig)] == stops
        assert not [v for v in views(b) if v.problem]
        assert all(v.answer.values for v in views(b))

    def test_a_station_off_the_route_is_not_told_and_its_mark_is_kept(self):
        marks = [Mark("weights", SETTLED, TAKEDOWN), Mark("brace", SETTLED, TAKEDOWN)]
        thumb = changed(TAKEDOWN, {"route": "thumb"})
        assert views(Bench(thumb), ["weights"]) == []
        assert "weights" not in {s.station for s in states(marks, thumb)}
        back = {s.station: s.state for s in states(marks, TAKEDOWN)}
        assert back["weights"] == SETTLED

    def test_the_schedule_asks_only_for_what_is_on_it(self):
        marks = [Mark("final-tiller", SETTLED, TAKEDOWN)]
        heavier = changed(TAKEDOWN, {"weights.middle_g": 200.0})
        due = {d.id for d in schedule(Bench(heavier), states(marks, heavier))}
        assert "recheck-final-tiller" in due
        thumb = changed(heavier, {"route": "thumb"})
        assert "recheck-final-tiller" not in {
            d.id for d in schedule(Bench(thumb), states(marks, thumb))
        }

    @pytest.mark.parametrize("rig", [TAKEDOWN, ONE_PIECE, THUMB, BOLT_DOWN])
    def test_no_finding_leads_to_a_station_that_is_not_on_it(self, rig):
        stops = set(route_of(rig).stops)
        led = [
            action.station
            for view in views(Bench(rig))
            for f in view.findings
            for action in (f.action, *f.instead)
            if isinstance(action, Action) and action.station
        ]
        assert led
        assert set(led) <= stops


class TestWhatIsDue:
    @pytest.mark.parametrize(
        ("station", "change", "due"),
        [("tiller", {"limbs.upper_turns": 0.25}, True),
         ("tiller", {"weights.middle_g": 200.0}, False),  # the rough one is what it was
         ("final-tiller", {"weights.middle_g": 200.0}, True),
         ("final-tiller", {"limbs.lower_turns": -0.25}, True),
         ("centre-shot", {"bow.side_plate_mm": 0.5}, True),
         ("centre-shot", {"bow.side_plate_mm": 0.2}, False),
         ("centre-shot", {"bow.centre_cut_mm": 2.0, "bow.side_plate_mm": 1.0}, False),
         ("centre-shot", {"archer.hand": "left"}, True),
         ("arrow", {"bow.plunger_spring": "firm"}, True),
         ("nock-point", {"weights.lower_pocket_g": 60.0}, True),
         ("nock-point", {"nocking.grip_line": "line"}, True),
         ("nock-point", {"nocking.school": "by_eye"}, False),
         ("quiet", {"weights.front_g": 90.0}, True)],
    )  # fmt: skip
    def test_after_a_change_upstream(self, station, change, due):
        now = changed(TAKEDOWN, change)
        told = {s.station: s for s in states([Mark(station, SETTLED, TAKEDOWN)], now)}
        assert (told[station].state == "due") == due


def test_every_station_has_its_tools_and_what_to_do_without():
    assert set(TOOLS) == set(STATIONS)
    for tools in TOOLS.values():
        assert tools
        assert all(t.name and t.without for t in tools)
    assert any("hurts people" in t.without for t in TOOLS["tiller"])
