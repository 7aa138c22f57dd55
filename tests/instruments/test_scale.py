"""The simulated bow scale, its readings made few, and readings as CSV."""

import json

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lyrandis.core.bow.curve import force_draw
from lyrandis.core.bow.readings import thinned
from lyrandis.core.errors import RefusedError
from lyrandis.core.parts import Bow, Rig
from lyrandis.files.readings_csv import MOST_BYTES, read_readings, write_readings
from lyrandis.instruments.protocol import Instrument
from lyrandis.instruments.scale import READINGS, ScaleReading, SimulatedScale

BOW = Bow(marked_weight_lbf=40)


def scale(seed=1, **more):
    return SimulatedScale(BOW, "polyester", 28.0, seed, **more)


class TestScale:
    def test_the_same_seed_gives_the_same_pull(self):
        instrument: Instrument[ScaleReading] = scale(7)
        assert list(instrument.readings()) == list(scale(7).readings())
        assert list(scale(8).readings()) != list(scale(7).readings())
        assert instrument.simulated

    def test_another_pull_has_other_noise_on_the_same_bow(self):
        one, two = scale(7, pull=0), scale(7, pull=1)
        assert list(one.readings()) != list(two.readings())
        assert one.hidden_weight_lbf() == two.hidden_weight_lbf()

    def test_it_reads_the_hidden_bow_and_not_the_marking(self):
        hidden = scale(3).hidden_weight_lbf()
        assert hidden != BOW.marked_weight_lbf
        curve = force_draw(BOW.model_copy(update={"marked_weight_lbf": hidden}))
        off = [r.force_lbf - curve.force(r.draw_in) for r in scale(3).readings()]
        assert abs(np.mean(off)) < 0.12
        assert np.std(off) < 0.35

    def test_hidden_bows_are_about_their_marking(self):
        shares = [scale(seed).hidden_weight_lbf() / 40 - 1 for seed in range(300)]
        assert np.std(shares) == pytest.approx(0.03, rel=0.15)
        assert abs(np.mean(shares)) < 0.006

    def test_offset_and_resolution_show(self):
        plain = [r.force_lbf for r in scale(2, noise_lbf=0, draw_sd_in=0).readings()]
        moved = [r.force_lbf for r in scale(2, noise_lbf=0, draw_sd_in=0, offset_lbf=2).readings()]
        np.testing.assert_allclose(np.subtract(moved, plain), 2, atol=0.11)
        coarse = [r.force_lbf for r in scale(2, resolution_lbf=0.5).readings()]
        assert all(abs(f * 2 - round(f * 2)) < 1e-9 for f in coarse)

    def test_it_stops_at_the_draw_asked_for(self):
        draws = [r.draw_in for r in scale(5).readings()]
        assert len(draws) == READINGS
        assert max(draws) == pytest.approx(28, abs=0.15)


class TestThinned:
    @settings(max_examples=25, deadline=None)
    @given(st.integers(0, 5000), st.floats(20, 60))
    def test_a_pull_becomes_a_rising_curve_near_the_true_one(self, seed, weight):
        bow = Bow(marked_weight_lbf=weight)
        pull = SimulatedScale(bow, "polyester", 28.5, seed)
        few = thinned(list(pull.readings()))
        draws, forces = np.array(few).T
        assert (np.diff(draws) >= 1).all()
        assert (np.diff(forces) > 0).all()
        hidden = bow.model_copy(update={"marked_weight_lbf": pull.hidden_weight_lbf()})
        true = [force_draw(hidden).force(d) for d in draws]
        np.testing.assert_allclose(forces[2:], true[2:], atol=0.45)
        # and it is a curve that the rig takes
        measured = bow.model_copy(update={"measured": tuple(map(tuple, few))})
        assert force_draw(measured).force(28) == pytest.approx(
            force_draw(hidden).force(28), abs=0.5
        )

    def test_a_straight_line_is_kept_exactly(self):
        draws = np.arange(10, 29, 0.25)
        for d, f in thinned([(float(d), float(2 * d - 15)) for d in draws]):
            assert f == pytest.approx(2 * d - 15, abs=0.02)

    def test_a_dip_is_evened_out(self):
        dipped = [(10, 5), (11, 8), (12, 7), (13, 12), (14, 15), (15, 18)]
        forces = [f for _, f in thinned(dipped)]
        assert forces == sorted(set(forces))

    @pytest.mark.parametrize(
        "few", [[], [(20, 20), (21, 22)], [(20, 20), (20.1, 21), (20.2, 21), (20.3, 22)]]
    )
    def test_too_little_is_refused(self, few):
        with pytest.raises(RefusedError) as caught:
            thinned(few)
        assert caught.value.limit is not None


class TestCsv:
    pairs = ((14.0, 12.4), (20.0, 23.55), (28.0, 36.0))

    @pytest.mark.parametrize("metric", [False, True])
    def test_out_and_in(self, metric):
        back = read_readings(write_readings(self.pairs, metric).encode())
        np.testing.assert_allclose(back, self.pairs, atol=0.001)

    @pytest.mark.parametrize(
        "text",
        [
            "draw (in),force (lb)\n28,36\n20 1/2,24",
            "force_lb;draw_in\n36;28\n24;20,5",
            "\ufeffDraw [mm]\tForce [kg]\n711.2\t16.329\n520.7\t10.886\n\n",
        ],
    )
    def test_reads_what_spreadsheets_write(self, text):
        np.testing.assert_allclose(read_readings(text.encode()), [[20.5, 24], [28, 36]], atol=0.01)

    @pytest.mark.parametrize(
        ("text", "field", "words"),
        [
            ("", "file", "empty"),
            ("28,36\n", "line 1", "no head of a column"),
            ("draw,force\n28,36", "line 1", "with their units"),
            ("draw (lb),force (in)\n28,36", "line 1", "with their units"),
            ("draw (in),draw (in)\n1,2", "line 1", "draw once and force once"),
            ("draw (in),force (lb)\n", "line 2", "no reading"),
            ("draw (in),force (lb)\n28,36\n20,heavy", "line 3", "“heavy” is no force in lb"),
            ("draw (in),force (lb)\n28,36\n20", "line 3", "1 cells"),
            ("draw (in),force (lb)\n28,36\n28,37", "line 3", "line 2 stands here again"),
            (
                "draw (in),force (lb)\n" + "\n".join(f"{i},{i}" for i in range(300)),
                "file",
                "too many",
            ),
        ],
    )
    def test_faults_are_named_by_their_line(self, text, field, words):
        with pytest.raises(RefusedError) as caught:
            read_readings(text.encode())
        assert caught.value.field == field
        assert words in caught.value.reason

    def test_what_is_no_text_or_too_large(self):
        with pytest.raises(RefusedError, match="not text"):
            read_readings(b"\xff\xfe\xff")
        with pytest.raises(RefusedError, match="too large"):
            read_readings(b"1" * (MOST_BYTES + 1))


class TestOverHttp:
    @pytest.fixture
    def rig(self, client):
        return client.post("/api/rigs", json=Rig().model_dump(mode="json")).json()["id"]

    def test_a_pull_streams_and_ends_with_readings_that_can_be_kept(self, client, rig):
        job = client.post("/api/jobs/pull", json={"rig": rig, "seed": 4, "pace": 0}).json()
        answer = client.get(f"/api/jobs/{job['id']}/events")
        assert answer.headers["content-type"].startswith("text/event-stream")
        events = [block.split("data: ")[1] for block in answer.text.strip().split("\n\n")]
        told = [json.loads(e) for e in events[:-1]]
        assert len(told) == READINGS
        assert [t["share"] for t in told] == sorted(t["share"] for t in told)
        assert told[-1]["share"] == 1
        assert all(len(t["live"]) == 2 for t in told)
        readings = json.loads(events[-1])["readings"]
        body = {"seq": 0, "station": "weight", "changes": {"bow.measured": readings}}
        kept = client.post(f"/api/rigs/{rig}/keep", json=body)
        assert kept.status_code == 200
        text = client.get(f"/api/rigs/{rig}/readings").text
        assert text.startswith("draw (in),force (lb)\n")
        taken = client.post("/api/readings", files={"file": ("r.csv", text)}).json()
        np.testing.assert_allclose(taken["readings"], readings)

    def test_refusals(self, client, rig):
        assert client.get(f"/api/rigs/{rig}/readings").status_code == 422
        assert client.post("/api/jobs/pull", json={"rig": 99}).status_code == 404
        for bad in ({"rig": rig, "pace": 11}, {"rig": rig, "seed": -1}, {"rig": rig, "speed": 2}):
            assert client.post("/api/jobs/pull", json=bad).status_code == 422
        bad = client.post("/api/readings", files={"file": ("r.csv", "draw,force")})
        assert bad.json()["errors"][0]["field"] == "line 1"
