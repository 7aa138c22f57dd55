"""Photos over HTTP: made plain and read in centimetres; films, clips and their views."""

import base64
import io

import numpy as np
import pytest
from PIL import Image

from lyrandis.files.photo import LONGEST_PX


def jpeg(size=(900, 600), form="JPEG", turned=False):
    photo = Image.new("RGB", size, (200, 180, 120))
    out = io.BytesIO()
    more = {}
    if form == "JPEG":
        exif = Image.Exif()
        exif[0x010F] = "A maker of cameras"
        exif[0x8825] = {1: "N", 2: (47.0, 1.0, 2.0)}
        if turned:
            exif[0x0112] = 6
        more = {"exif": exif}
    photo.save(out, form, **more)
    return out.getvalue()


def plain(client, content, name="butt.jpg"):
    return client.post("/api/compute/photo", files={"file": (name, content, "image/jpeg")})


class TestPhoto:
    @pytest.mark.parametrize("form", ["JPEG", "PNG"])
    def test_it_comes_back_plain_and_without_what_it_knew(self, client, form):
        sent = jpeg(form=form)
        if form == "JPEG":
            assert b"A maker of cameras" in sent
        answer = plain(client, sent)
        assert answer.headers["content-type"] == "image/jpeg"
        told = Image.open(io.BytesIO(answer.content))
        assert told.size == (900, 600)
        assert not told.getexif()
        assert b"A maker" not in answer.content

    def test_a_large_one_is_made_smaller_and_a_turned_one_upright(self, client):
        told = Image.open(io.BytesIO(plain(client, jpeg((4000, 3000))).content))
        assert max(told.size) == LONGEST_PX
        told = Image.open(io.BytesIO(plain(client, jpeg((900, 600), turned=True)).content))
        assert told.size == (600, 900)

    @pytest.mark.parametrize("content", [b"", b"no photo", jpeg()[:300], b"GIF89a" + b"0" * 50])
    def test_what_is_no_photo_is_refused(self, client, content):
        answer = plain(client, content)
        assert answer.status_code == 422
        assert answer.json()["errors"][0]["field"] == "file"

    def test_a_bomb_is_refused(self, client, monkeypatch):
        monkeypatch.setattr("lyrandis.files.photo.MOST_PIXELS", 1000)
        assert "too large" in plain(client, jpeg()).json()["detail"]


class TestPlaces:
    def test_the_practice_photo_is_read_back(self, client):
        for again in range(3):
            photo = client.get(f"/api/instruments/camera/butt?again={again}").json()
            assert photo["simulated"] is True
            body = {
                "corners_px": photo["corners_px"], "width_cm": 80, "height_cm": 80,
                "marks_px": photo["marks_px"],
            }  # fmt: skip
            told = client.post("/api/compute/photo-places", json=body).json()["places_cm"]
            assert np.array(told) == pytest.approx(np.array(photo["places_cm"]), abs=0.05)
            moved = client.post(
                "/api/compute/photo-places", json=body | {"zero_px": photo["marks_px"][0]}
            ).json()["places_cm"]
            assert moved[0] == pytest.approx([0, 0], abs=1e-9)
            image = Image.open(io.BytesIO(base64.b64decode(photo["image"].partition(",")[2])))
            x, y = photo["marks_px"][0]
            assert sum(image.getpixel((round(x), round(y)))) != sum(image.getpixel((5, 5)))

    def test_corners_out_of_order_are_refused_by_their_name(self, client):
        body = {
            "corners_px": [[0, 0], [0, 900], [900, 900], [900, 0]],
            "width_cm": 80,
            "height_cm": 80,
        }
        answer = client.post("/api/compute/photo-places", json=body)
        assert answer.status_code == 422
        assert answer.json()["errors"][0]["field"] == "corners_px"


@pytest.fixture
def rig(client):
    bow = {"form": "recurve", "length_in": 68, "marked_weight_lbf": 42, "takedown": True,
           "side_plate": "plunger", "centre_cut_mm": 5, "side_plate_mm": 4}  # fmt: skip
    made = client.post("/api/rigs", json={"name": "Field", "bow": bow, "string": {"mass_gr": 105}})
    return made.json()["id"]


class TestFilm:
    def test_the_simulated_camera_and_what_its_frames_say(self, client, rig):
        film = client.get(f"/api/rigs/{rig}/film?again=2").json()
        assert film["simulated"] is True
        assert len(film["frames"]) == len(film["nock_px"]) > film["let_go"]
        image = Image.open(io.BytesIO(base64.b64decode(film["frames"][0].partition(",")[2])))
        assert image.size == (film["width"], film["height"])
        trial = {
            "kind": "clip", "frames_a_second": film["frames_a_second"], "let_go": film["let_go"],
            "marks": [
                {"frame": i, "nock_px": n, "point_px": p}
                for i, (n, p) in enumerate(zip(film["nock_px"], film["point_px"], strict=True))
            ],
            "by": "simulated",
        }  # fmt: skip
        told = client.post(f"/api/rigs/{rig}/clip", json={"changes": {}, "trial": trial}).json()
        assert told["spine"]["value"] == pytest.approx(film["spine"], rel=0.05)
        assert len(told["shapes"]) == len(trial["marks"])
        kept = client.post(
            f"/api/rigs/{rig}/keep",
            json={"seq": 0, "changes": {}, "station": "flight", "trial": trial},
        ).json()
        assert kept["trials"][0]["said"]["text"].endswith("practice only.")
        view = client.get(f"/api/rigs/{rig}").json()
        assert view["trials"][0]["trial"]["let_go"] == film["let_go"]

    def test_one_mark_has_nothing_to_say_yet(self, client, rig):
        trial = {"kind": "clip", "frames_a_second": 240, "let_go": 9, "tail": "clear",
                 "marks": [{"frame": 1, "nock_px": [0, 0], "point_px": [400, 0]}]}  # fmt: skip
        told = client.post(f"/api/rigs/{rig}/clip", json={"changes": {}, "trial": trial}).json()
        assert told["frequency"] is None
        assert told["shapes"] == []


def test_a_clattering_take_of_the_recorder_is_heard(client, rig):
    heard = []
    for clatter in ("yes", "no"):
        take = client.get(f"/api/rigs/{rig}/recording?clatter={clatter}&shots=3").content
        sound = client.post("/api/compute/sound", files={"file": ("a.wav", take, "audio/wav")})
        heard.append(sound.json()["clatter"])
    assert heard == [True, False]
