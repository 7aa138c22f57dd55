"""`compute/crawl-fit`: the chart, what to shoot next, and what it refuses."""

import pytest

VISITS = [
    {"distance_m": 10, "crawl_mm": 100, "heights_cm": [1, -2, 0]},
    {"distance_m": 30, "crawl_mm": 66, "heights_cm": [6, 2, 9]},
    {"distance_m": 50, "crawl_mm": 30, "heights_cm": [-8, -15, -3]},
]


def fit(client, **body):
    return client.post("/api/compute/crawl-fit", json={"nock_to_tip_m": 0.76} | body)


def test_a_chart_with_its_doubt_and_the_next_distance(client):
    before, after = fit(client).json(), fit(client, visits=VISITS).json()
    assert [r["distance_m"] for r in after["rows"]] == [5.0 * i for i in range(1, 11)]
    crawls = [r["crawl_mm"] for r in after["rows"]]
    assert crawls == sorted(crawls, reverse=True)
    for was, now in zip(before["rows"], after["rows"], strict=True):
        assert now["impact_sd_cm"] < was["impact_sd_cm"]
    assert after["point_on_m"] > 50
    assert after["next_distance_m"] == after["next_distances"][0]["distance_m"]
    assert not any("speed" in name for name in after)


def test_a_cheek_anchor_and_a_known_speed_change_the_prior(client):
    cheek = fit(client, anchor="cheek").json()
    assert cheek["point_on_m"] < fit(client).json()["point_on_m"]
    sure = fit(client, speed_prior_mps=[52, 1]).json()
    assert sure["rows"][-1]["impact_sd_cm"] < fit(client).json()["rows"][-1]["impact_sd_cm"]


@pytest.mark.parametrize(
    "bad",
    [
        {"visits": [VISITS[0] | {"heights_cm": []}]},
        {"visits": [VISITS[0] | {"distance_m": 0}]},
        {"visits": [VISITS[0] | {"crawl_mm": -3}]},
        {"nock_to_tip_m": 3},
        {"speed_prior_mps": [52, 0]},
        {"anchor": "nose"},
    ],
)
def test_nonsense_is_refused_by_its_field(client, bad):
    answer = fit(client, **bad)
    assert answer.status_code == 422
    assert next(iter(bad)) in answer.json()["errors"][0]["field"]
