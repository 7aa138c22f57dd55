"""Arrows over HTTP: side by side, what a spread costs, tables in, labels out, instruments as jobs."""

import json

import pytest

from lyrandis.core.parts import ArrowSet, Part, Rig, Shaft


@pytest.fixture
def rig(client):
    return client.post("/api/rigs", json=Rig(name="Test rig").model_dump(mode="json")).json()


def test_what_if_rows_stand_beside_the_arrow_as_it_is(client, rig):
    body = {
        "changes": {"arrow.static_spine": 700},
        "others": [{"arrow.point_gr": 150}, {"arrow.shaft_length_in": 26}],
    }
    told = client.post(f"/api/rigs/{rig['id']}/what-if", json=body).json()
    now, heavy, short = told["rows"]
    assert now["arrow"]["acts_spine"] == 700
    assert heavy["arrow"]["mass_gr"]["value"] == pytest.approx(
        now["arrow"]["mass_gr"]["value"] + 40
    )
    assert short["arrow"] is None
    assert short["problem"]["field"] == "arrow.shaft_length_in"
    assert len(told["suggested"]) == 4
    assert client.get(f"/api/rigs/{rig['id']}/history").json() == []  # nothing was kept


def test_what_if_refuses_a_value_out_of_range_by_its_field(client, rig):
    body = {"others": [{"arrow.point_gr": 1500}]}
    told = client.post(f"/api/rigs/{rig['id']}/what-if", json=body).json()
    assert told["rows"][1]["problem"]["field"] == "arrow.point_gr"
    assert told["rows"][1]["problem"]["limit"] == 600
    bad = client.post(f"/api/rigs/{rig['id']}/what-if", json={"changes": {"arrow.none": 1}})
    assert bad.status_code == 422


def test_what_a_spread_costs(client, rig):
    told = client.get(f"/api/rigs/{rig['id']}/spread", params={"mass_range_gr": 10}).json()
    assert 5 < told["high_cm"] < 15
    assert not told["own_known"]
    assert client.get(f"/api/rigs/{rig['id']}/spread?mass_range_gr=-1").status_code == 422


def send(client, path, text):
    return client.post(path, files={"file": ("a.csv", text.encode(), "text/csv")})


def test_tables_are_read_and_refused_by_line(client):
    read = send(client, "/api/shafts?first=5", "400 500\n402 505").json()
    assert [s["number"] for s in read["shafts"]] == [5, 6]
    bad = send(client, "/api/shafts", "weight (gr),spine\n400,500\nheavy,500")
    assert bad.status_code == 422
    assert bad.json()["errors"][0]["field"] == "line 3"
    read = send(client, "/api/speeds", "arrow (gr),speed (ft/s)\n400,180\n500,165").json()
    assert [t["mass_gr"] for t in read["readings"]] == [400, 500]
    assert send(client, "/api/speeds", "nonsense").json()["errors"][0]["field"] == "line 1"


def test_labels_and_shafts_of_a_set(client):
    of = ArrowSet(shafts=(Shaft(number=1, mass_gr=400, static_spine=500),))
    body = Part(name="Set", of=of).model_dump(mode="json")
    mark = client.post("/api/parts", json=body).json()["line"]["mark"]
    assert client.get(f"/api/parts/{mark}/shafts").text.splitlines()[1] == "1,400,500,"
    for sheet in client.get("/api/labels").json():
        pdf = client.get(f"/api/parts/{mark}/labels", params={"sheet": sheet["id"]})
        assert pdf.content.startswith(b"%PDF")
    assert client.get(f"/api/parts/{mark}/labels?skip=24").status_code == 422
    bow = client.post("/api/parts", json={"name": "Bow", "of": {"kind": "bow"}}).json()
    assert client.get(f"/api/parts/{bow['line']['mark']}/labels").status_code == 422


def test_cutting_marks_of_a_wood_shaft(client, rig):
    assert client.get(f"/api/rigs/{rig['id']}/cutting").status_code == 422
    changes = {
        "arrow.material": "wood", "arrow.diameter_mm": 8.7, "arrow.rear_taper_in": 9,
        "arrow.rear_end_mm": 7.2,
    }  # fmt: skip
    kept = client.post(f"/api/rigs/{rig['id']}/keep", json={"seq": 0, "changes": changes})
    assert kept.status_code == 200
    assert client.get(f"/api/rigs/{rig['id']}/cutting").content.startswith(b"%PDF")


def events_of(client, job):
    lines = client.get(f"/api/jobs/{job}/events").text.splitlines()
    names = [line.removeprefix("event: ") for line in lines if line.startswith("event:")]
    data = [json.loads(line.removeprefix("data: ")) for line in lines if line.startswith("data:")]
    return names, data


@pytest.mark.parametrize(
    ("path", "more", "key", "readings"),
    [
        ("weigh", {}, "mass_gr", 12),
        ("chronograph", {"mass_gr": 450, "shots": 5}, "speeds_fps", 5),
    ],
)
def test_an_instrument_tells_each_reading_and_keeps_none(client, rig, path, more, key, readings):
    body = {"rig": rig["id"], "seed": 3, "pace": 0} | more
    job = client.post(f"/api/jobs/{path}", json=body).json()
    names, data = events_of(client, job["id"])
    assert names[-1] == "done"
    assert data[-1][key]
    assert len(data) == readings + 1
    again = client.get(f"/api/rigs/{rig['id']}").json()
    assert again["trials"] == []
    assert again["rig"]["arrow"]["weighed_gr"] is None


def test_a_made_up_set_is_measured_shaft_by_shaft(client):
    body = {"arrow": {"static_spine": 500}, "shafts": 6, "pace": 0}
    _, data = events_of(client, client.post("/api/jobs/shafts", json=body).json()["id"])
    assert [s["number"] for s in data[-1]["shafts"]] == list(range(1, 7))
    assert data[0]["live"][0] == 1
