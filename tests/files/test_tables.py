"""Shafts and speeds as tables, errors by line; labels and cutting marks at true size."""

import io
import re
from itertools import pairwise

import pytest
from pypdf import PdfReader

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.parts import Rig, Shaft
from lyrandis.files.cutting import cutting_marks
from lyrandis.files.labels import SHEETS, shaft_labels
from lyrandis.files.shafts_csv import read_shafts, write_shafts
from lyrandis.files.speeds_csv import read_speeds

MM = 72 / 25.4


def told(shafts):
    return [(s.number, s.mass_gr, s.static_spine) for s in shafts]


@pytest.mark.parametrize(
    "text",
    [
        "number,weight (gr),spine\n1,401.5,503\n2,398,510",
        "No;Spine;Mass (gr)\n1;503;401,5\n2;510;398\n",
        "401.5 503\n398 510",  # pasted
        "1\t401.5\t503\n\n2\t398\t510",
    ],
)
def test_shafts_as_people_send_them(text):
    assert told(read_shafts(text.encode())) == [(1, 401.5, 503), (2, 398, 510)]


def test_the_other_standard_grams_and_numbers_that_go_on():
    (one,) = read_shafts(b"weight (g),spine (lb),runout (mm)\n26.0,63,0.2", first=7)
    assert one.number == 7
    assert one.mass_gr == pytest.approx(401.2, abs=0.1)
    assert one.static_spine == pytest.approx(500, abs=0.5)
    assert one.runout_mm == 0.2


def test_out_and_in_again():
    shafts = [
        Shaft(number=3, mass_gr=402.5, static_spine=498, runout_mm=0.3),
        Shaft(number=9, mass_gr=399),
    ]
    assert read_shafts(write_shafts(shafts).encode()) == shafts


@pytest.mark.parametrize(
    ("text", "field", "words"),
    [
        ("", "file", "empty"),
        ("number,weight\n1,400", "line 1", "“weight” is no head"),
        ("number,weight (gr),spine\n1,400,500\n2,heavy,500", "line 3", "“heavy” is no weight"),
        ("number,weight (gr),spine\n1,400,500\n1,401,500", "line 3", "of line 2 stands here"),
        ("number,weight (gr),spine\n1,4000,500", "line 2", "at most 2500"),
        ("number,weight (gr),spine\n1,400", "line 2", "2 cells"),
        ("number,weight (gr),spine\n1,,", "line 2", "says nothing"),
        ("number,weight (gr),spine\n", "line 2", "no shaft"),
        ("400 500\n401 five", "line 2", "“five” is no spine"),
        ("weight (gr),spine\n" + "400,500\n" * 300, "file", "too many"),
    ],
)
def test_faults_of_shafts_are_named_by_their_line(text, field, words):
    with pytest.raises(RefusedError) as caught:
        read_shafts(text.encode())
    assert caught.value.field == field
    assert words in caught.value.reason


def test_speeds_by_arrow_weight():
    read = read_speeds(b"arrow (gr),speed (m/s)\n400,55\n520,49\n400,55.4\n")
    assert [(t.mass_gr, len(t.speeds_fps)) for t in read] == [(400, 2), (520, 1)]
    assert read[0].speeds_fps[0] == pytest.approx(180.4, abs=0.1)


@pytest.mark.parametrize(
    ("text", "field", "words"),
    [
        ("arrow (gr),speed (ft/s)\n400,fast", "line 2", "“fast” is no speed in ft/s"),
        ("arrow (gr),speed (ft/s)\n400,900", "line 2", "at most 450"),
        ("arrow (gr),speed\n400,180", "line 1", "with their units"),
        ("arrow (gr),speed (fps)\n", "line 2", "no shot"),
    ],
)
def test_faults_of_speeds_are_named_by_their_line(text, field, words):
    with pytest.raises(RefusedError) as caught:
        read_speeds(text.encode())
    assert caught.value.field == field
    assert words in caught.value.reason


SET = [Shaft(number=n, mass_gr=400 + n / 2, static_spine=500 + n) for n in range(1, 13)]


@pytest.mark.parametrize("sheet", SHEETS)
def test_each_label_stands_on_its_own_place_of_the_sheet(sheet):
    s = SHEETS[sheet]
    assert s.left + (s.columns - 1) * s.step_x + s.width <= s.paper[0] + 0.01
    assert s.top + (s.rows - 1) * s.step_y + s.height <= s.paper[1] + 0.01
    pdf = PdfReader(io.BytesIO(shaft_labels("Autumn set", SET, sheet, {}, skip=2)))
    assert [float(v) for v in pdf.pages[0].mediabox[2:]] == pytest.approx(s.paper, abs=0.5)
    places = {}

    def note(text, _, matrix, __, size):
        if text.strip().isdigit() and size > 9:
            places[int(text)] = (matrix[4], matrix[5])

    pdf.pages[0].extract_text(visitor_text=note)
    assert set(places) == set(range(1, 13))
    for number, (x, y) in places.items():
        row, column = divmod(number - 1 + 2, s.columns)
        left, top = s.left + column * s.step_x, s.paper[1] - s.top - row * s.step_y
        assert left < x < left + s.width
        assert top - s.height < y < top


def test_labels_leave_out_what_is_broken_and_refuse_an_empty_set():
    shafts = [SET[0], SET[1].model_copy(update={"state": "broken"})]
    text = PdfReader(io.BytesIO(shaft_labels("Set", shafts, "a4_24", {}))).pages[0].extract_text()
    assert "400 gr" in text or "401 gr" in text
    assert "spine 502" not in text
    with pytest.raises(RefusedError, match="nothing to label"):
        shaft_labels("Set", shafts[1:], "a4_24", {})
    with pytest.raises(RefusedError) as caught:
        shaft_labels("Set", shafts, "a4_24", {}, skip=24)
    assert (caught.value.limit, caught.value.unit) == (23, "labels")


def test_cutting_marks_stand_an_inch_apart_and_the_bar_is_50_mm():
    rig = changed(
        Rig(),
        {"arrow.material": "wood", "arrow.diameter_mm": 8.7, "arrow.rear_taper_in": 10.0,
         "arrow.rear_end_mm": 7.1, "arrow.front_taper_in": 4.0, "arrow.front_end_mm": 8.0},
    )  # fmt: skip
    b = Bench(rig)
    pages = PdfReader(io.BytesIO(cutting_marks(b, b.shaft.gauges, {}))).pages
    data = pages[0].get_contents().get_data().decode("latin-1")
    n = r"(-?\d+(?:\.\d+)?)"
    lines = [tuple(map(float, m)) for m in re.findall(rf"{n} {n} m {n} {n} l S", data)]
    assert any(y0 == y1 and abs(x1 - x0 - 50 * MM) < 0.02 for x0, y0, x1, y1 in lines)
    marks = sorted({(round(y0, 1), round(x0, 2)) for x0, y0, x1, y1 in lines if x0 == x1})
    first = [x for y, x in marks if y == max(y for y, _ in marks if x > 0)]
    gaps = [(b - a) / MM for a, b in pairwise(first)]
    assert gaps
    assert gaps == pytest.approx([25.4] * len(gaps), abs=0.02)
    text = "\n".join(page.extract_text() for page in pages)
    assert "7.10 mm" in text
    assert "8.00 mm" in text
    with pytest.raises(RefusedError, match="no taper"):
        cutting_marks(Bench(Rig()), [], {})
