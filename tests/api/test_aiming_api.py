"""Aiming over HTTP: what is weighed, cards at true size, courses and charts in and out."""

import io
import re
from dataclasses import replace

import numpy as np
import pytest
from pypdf import PdfReader

from lyrandis.core.bench import Bench
from lyrandis.core.flight.trajectory import crawl_for_mm, impact_m
from lyrandis.core.parts import Rig
from lyrandis.core.trials import ArrowsShotTrial, KeptTrial

COURSE = {
    "name": "Beech valley",
    "targets": [
        {"name": "hare", "distance_m": 12, "slope_deg": 0, "spot_half_height_cm": 4},
        {"name": "boar", "distance_m": 27, "slope_deg": -14, "spot_half_height_cm": 10},
        {"name": "far off", "distance_m": 119, "slope_deg": 0, "spot_half_height_cm": 12},
    ],
}


@pytest.fixture
def rig(client):
    made = client.post("/api/rigs", json={"name": "Own", "courses": [COURSE]})
    return made.json()["id"]


def aiming(client, rig, **changes):
    answer = client.post(f"/api/rigs/{rig}/aiming", json={"changes": changes})
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_round_card_is_each_target_on_its_own_slope(client, rig):
    lines = aiming(client, rig)["round_cards"][0]
    b = Bench(Rig.model_validate({"name": "Own"}))
    sloped = replace(b.aim.aimed, slope_deg=-14.0)
    crawl = float(crawl_for_mm(sloped, np.array([27.0]))[0])
    assert lines[1]["crawl_mm"] == pytest.approx(crawl, abs=1e-6)
    assert lines[1]["target"]["name"] == "boar"
    assert lines[2]["crawl_mm"] is None
    assert "outside what the flight model covers" in lines[2]["why"]
    gaps = aiming(client, rig, **{"archer.release": "split"})["round_cards"][0]
    assert gaps[0]["gap_cm"] == pytest.approx(
        100 * float(impact_m(b.aim.aimed, 0.0, 12.0)), abs=0.5
    )


@pytest.mark.parametrize("card", ["tab", "pocket", "course"])
def test_cards_are_at_true_size(client, rig, card):
    asked = f"/api/rigs/{rig}/card?card={card}"
    svg = client.get(f"{asked}&kind=svg")
    assert svg.headers["content-type"].startswith("image/svg+xml")
    wide = float(re.search(r'<svg width="([\d.]+)mm"', svg.text)[1])
    box = float(re.search(r'viewBox="0 0 ([\d.]+) ', svg.text)[1])
    assert box / wide == pytest.approx(72 / 25.4, rel=1e-4)
    bar = 50 * 72 / 25.4
    lengths = [
        float(x2) - float(x1)
        for x1, x2 in re.findall(r'<line x1="([\d.]+)"[^>]*x2="([\d.]+)"', svg.text)
    ]
    lengths += [
        float(b) - float(a)
        for a, b in re.findall(r'd="M ?([\d.]+)[ ,][\d.]+ ?L ?([\d.]+)', svg.text)
    ]
    ends = re.findall(r'points="([\d.]+),([\d.]+) ([\d.]+),([\d.]+)"', svg.text)
    lengths += [float(c) - float(a) for a, _, c, _ in ends]
    assert any(abs(length - bar) < 0.05 for length in lengths), svg.text[:600]
    assert "http://www.w3.org/TR" not in svg.text
    pdf = client.get(asked)
    text = PdfReader(io.BytesIO(pdf.content)).pages[0].extract_text()
    assert "50 mm: measure this bar" in text
    assert ("Beech valley" if card == "course" else "Own") in text


def test_a_card_says_whether_it_was_shot(client, rig):
    def text():
        pdf = client.get(f"/api/rigs/{rig}/card?card=pocket").content
        return PdfReader(io.BytesIO(pdf)).pages[0].extract_text()

    assert "computed, not yet shot" in text()
    seq = client.get(f"/api/rigs/{rig}").json()["seq"]
    visit = {"kind": "crawl_visit", "distance_m": 20, "crawl_mm": 85, "heights_cm": [1, 4]}
    kept = client.post(
        f"/api/rigs/{rig}/keep", json={"seq": seq, "station": "crawls", "trial": visit}
    )
    assert kept.status_code == 200, kept.text
    assert "learnt from 2 arrows" in text()


def test_a_tab_card_is_refused_to_gaps_and_a_course_that_is_not_there(client, rig):
    made = client.post("/api/rigs", json={"name": "Split", "archer": {"release": "split"}}).json()
    refused = client.get(f"/api/rigs/{made['id']}/card?card=tab")
    assert refused.status_code == 422
    assert "carries crawls" in refused.text
    assert client.get(f"/api/rigs/{rig}/card?card=course&course=3").status_code == 422
    assert client.get(f"/api/rigs/{rig}/course.csv?course=3").status_code == 422


def test_courses_go_out_and_in_again(client, rig):
    csv = client.get(f"/api/rigs/{rig}/course.csv").content
    back = client.post("/api/courses", files={"file": ("c.csv", csv, "text/csv")}).json()
    numbers = ("distance_m", "slope_deg", "spot_half_height_cm")
    assert [[t[n] for n in numbers] for t in back["targets"]] == [
        [t[n] for n in numbers] for t in COURSE["targets"]
    ]
    wrong = client.post("/api/courses", files={"file": ("c.csv", b"distance (m)\n12\n900\n")})
    assert wrong.status_code == 422
    assert "line 3" in wrong.text


def test_a_course_as_json_keeps_its_names(client, rig):
    told = client.get(f"/api/rigs/{rig}/course")
    back = client.post("/api/courses", files={"file": ("c.json", told.content)})
    assert back.json() == told.json()
    assert [t["name"] for t in back.json()["targets"]] == ["hare", "boar", "far off"]
    wrong = told.content.replace(b"27", b"900")
    assert client.post("/api/courses", files={"file": ("c.json", wrong)}).status_code == 422


def table(client, text, walks=True):
    at = f"/api/aim-table?walks={str(walks).lower()}"
    data = text if isinstance(text, bytes) else text.encode()
    return client.post(at, files={"file": ("aim.csv", data)})


def taken(answer):
    assert answer.status_code == 200, answer.text
    return [line["trial"] for line in answer.json()]


def test_a_chart_goes_out_and_comes_in_as_what_is_known(client, rig):
    told = client.get(f"/api/rigs/{rig}/chart").json()["rows"]
    for suffix in (".csv", ""):
        data = client.get(f"/api/rigs/{rig}/chart{suffix}").content
        back = taken(table(client, data))
        assert [t["kind"] for t in back] == ["aim_known"] * len(told)
        assert [t["crawl_mm"] for t in back] == pytest.approx(
            [r["crawl_mm"] for r in told], rel=1e-3
        )


def test_visits_go_out_and_come_in_as_they_were(client, rig):
    visits = [
        {"kind": "crawl_visit", "distance_m": 20, "crawl_mm": 85, "heights_cm": [1, -4.5]},
        {"kind": "crawl_visit", "distance_m": 35, "crawl_mm": 60, "heights_cm": [9]}
        | {"arrows": "sighters", "day": "2026-05-31"},
    ]
    for seq, visit in enumerate(visits):
        body = {"seq": seq, "station": "crawls", "trial": visit}
        assert client.post(f"/api/rigs/{rig}/keep", json=body).status_code == 200
    data = client.get(f"/api/rigs/{rig}/trials/crawl_visit").content
    back = {t["distance_m"]: t for t in taken(table(client, data))}
    assert back[20]["heights_cm"] == [1, -4.5]
    assert (back[35]["arrows"], back[35]["day"]) == ("sighters", "2026-05-31")


def test_gaps_and_yards_are_taken_in_and_lines_without_a_setting_passed_over(client):
    text = "distance (yd);gap (in);mood\n20;4;fine\n30;;dull\n40;-2;\n"
    back = taken(table(client, text, walks=False))
    assert [t["distance_m"] for t in back] == pytest.approx([18.288, 36.576])
    assert [t["gap_cm"] for t in back] == pytest.approx([10.16, -5.08])
    assert {t["known"] for t in back} == {"gap"}


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("", "empty"),
        ("far,crawl (mm)\n20,40\n", "The first line names its columns"),
        ("distance,crawl (mm)\n20,40\n", "wants its unit"),
        ("distance (m),crawl (mm)\n20,much\n", "Line 2: “much” is no crawl in mm"),
        ("distance (m),crawl (mm)\n20,40\n200,40\n", "Line 3"),
        ("day,distance (m),crawl (mm)\nsoon,20,40\n", "Line 2: “soon” is not a day"),
        ("distance (m),mood\n20,fine\n", "a column “crawl (mm)”"),
        ("distance (m),crawl (mm)\n" + "20,40\n" * 61, "At most 60 lines"),
        ("[1, 2]", "no list of distances"),
        ('{"rows": [', "begins as JSON and is none"),
    ],
)
def test_a_table_of_the_aim_that_cannot_be_read_says_where(client, text, told):
    answer = table(client, text)
    assert answer.status_code == 422
    assert told in answer.json()["errors"][0]["reason"]


def test_the_chart_as_csv_and_json_says_the_same(client, rig):
    told = client.get(f"/api/rigs/{rig}/chart").json()
    lines = client.get(f"/api/rigs/{rig}/chart.csv").text.splitlines()
    assert lines[0].startswith("distance (m),crawl (mm),± (mm)")
    for line, row in zip(lines[1:], told["rows"], strict=True):
        assert float(line.split(",")[1]) == pytest.approx(row["crawl_mm"], rel=1e-3)


def test_arrows_are_tallied_by_part_and_by_days():
    rig = Rig.model_validate({"name": "Own", "on": {"string": "a" * 32, "archer": "b" * 32}})
    other = Rig.model_validate({"name": "Own", "on": {"string": "c" * 32, "archer": "b" * 32}})
    known = tuple(
        KeptTrial(i, f"{day}T10:00:00+00:00", ArrowsShotTrial(arrows=n), of)
        for i, (day, n, of) in enumerate(
            (("2026-05-01", 60, rig), ("2026-05-20", 48, other), ("2026-05-28", 30, rig))
        )
    )
    told = {t.slot: t for t in Bench(rig, known, "2026-05-30T12:00:00+00:00").arrow_tally}
    assert (told["string"].arrows, told["string"].week, told["string"].month) == (90, 30, 90)
    assert (told["archer"].arrows, told["archer"].month) == (138, 138)
    assert Bench(rig).arrow_tally == []
