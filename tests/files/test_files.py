"""Files: the rig as JSON, lossless or refused whole; the sheet at true size."""

import csv
import io
import json
import re

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from icalendar import Calendar
from pypdf import PdfReader

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed
from lyrandis.core.history import Entry, changes_between
from lyrandis.core.parts import Rig
from lyrandis.core.route import READS
from lyrandis.core.schedule import schedule
from lyrandis.core.tally import tally
from lyrandis.core.trials import (
    KINDS,
    AimKnownTrial,
    ArrowsShotTrial,
    ArrowWeighingTrial,
    BraceTrial,
    CentreShotTrial,
    ChronographTrial,
    ClipTrial,
    CoachTrial,
    CrawlVisitTrial,
    DrawTrial,
    FlightReadTrial,
    GroupTrial,
    HoldTrial,
    InLineTrial,
    InspectionTrial,
    JudgingTrial,
    KeptTrial,
    MarksTrial,
    NockReadTrial,
    NumberedTrial,
    QuietTrial,
    ReleaseTrial,
    SettlingTrial,
    ShaftReadTrial,
    StringWeighingTrial,
    TillerTrial,
    WalkBackTrial,
    WayTrial,
    WeighingTrial,
)
from lyrandis.core.trials.clip import FrameMark
from lyrandis.core.trials.group import Impact
from lyrandis.core.trials.marks import Landed
from lyrandis.core.trials.numbered import Landing
from lyrandis.core.units import write
from lyrandis.files.calendar import DayNote, write_calendar
from lyrandis.files.rig_json import MOST_BYTES, read_rig
from lyrandis.files.sheet import findings_that_matter, renamed, rig_sheet, settings_rows
from lyrandis.files.trials_csv import write_trials
from rig_files import write_rig

RIG = Rig(name="Räucher & Söhne <b>")
AT = "2026-05-01T09:00:00+00:00"
MM = 72 / 25.4


def entry(seq, rig, **wanted):
    paths = {p.replace("__", "."): v for p, v in wanted.items()}
    return Entry(seq=seq, kind="adjust", at="2026-05-01T10:00:00+00:00", station="brace",
                 standing="settled", why="so", changes=changes_between(rig, paths))  # fmt: skip


class TestJson:
    @settings(deadline=None, max_examples=30)
    @given(st.floats(40, 76), st.text(max_size=40), st.integers(4, 40))
    def test_out_and_in_is_lossless(self, length, why, strands):
        one = entry(1, RIG, bow__length_in=length).model_copy(update={"why": why})
        two = entry(2, RIG, string__strands=strands)
        text = write_rig(RIG, [one, two], "2026-05-01T09:00:00+00:00")
        read = read_rig(text.encode())
        assert read.base == RIG
        assert read.entries == [one, two]
        assert write_rig(read.base, read.entries, read.created_at) == text

    def test_trials_go_out_and_come_in_whole(self):
        trials = [
            DrawTrial(method="tape", readings_in=(27.5,), draw_length_in=27.5, plus_minus_in=1),
            HoldTrial(weight_lbf=36.4, seconds=9.5, ended="pain", notes="ä", day="2026-04-30"),
            InspectionTrial(looked=("cracks", "tips"), found=("tips",)),
            WeighingTrial(readings=((20.0, 18.0), (28.0, 36.0)), scale="file"),
        ]
        at = "2026-05-01T10:00:00+00:00"
        entries = [Entry(seq=i + 1, kind="trial", at=at, trial=t) for i, t in enumerate(trials)]
        entries += [Entry(seq=5, kind="strike", at=at, about=2)]
        assert read_rig(write_rig(RIG, entries, AT).encode()).entries == entries

    def test_a_file_of_the_first_version_is_read(self):
        one = entry(1, RIG, bow__brace_height_in=8.0)
        text = write_rig(RIG, [one], AT).replace('"version": 5', '"version": 1')
        old = json.loads(text)
        for name in ("trial", "about"):
            del old["entries"][0][name]
        for name in ("limbs", "step_up"):
            del old["base"][name]
        assert read_rig(json.dumps(old).encode()).entries == [one]

    def test_a_byte_order_mark_is_no_fault(self):
        assert read_rig(b"\xef\xbb\xbf" + write_rig(RIG, [], AT).encode()).base == RIG

    @pytest.mark.parametrize(
        ("spoil", "field", "words"),
        [
            (lambda t: t[:200], "file", "line"),
            (lambda t: t.replace('"entries"', '"entries'), "file", "column"),
            (lambda _: "", "file", "damaged"),
            (lambda _: "[" * 100_000, "format", "not a Lyrandis rig"),
            (lambda _: "{}", "format", "not a Lyrandis rig"),
            (lambda t: t.replace("lyrandis-rig", "other-rig"), "format", "not a Lyrandis rig"),
            (lambda t: t.replace('"version": 5', '"version": 6'), "version", "not known"),
            (lambda t: t.replace('"trial": null', '"trial": {"kind": "dream"}'), "entries.0.trial", "dream"),
            (lambda t: t.replace('"about": null', '"about": 8'), "entries.0.about", "holds no trial"),
            (lambda t: t.replace('"length_in": 68', '"length_in": NaN'), "file", "NaN"),
            (lambda t: t.replace('"length_in": 68', '"length_in": 680'), "base.bow.length_in", "at most 76 in"),
            (lambda t: t.replace('"strands": 14', '"strnds": 14'), "base.string.strnds", "not known"),
            (lambda t: t.replace('"seq": 1', '"seq": 4'), "entries.0.seq", "numbered 4"),
            (lambda t: t.replace('"after": 8.0', '"after": 80.0'), "entries.0.bow.brace_height_in", "at most 14 in"),
            (lambda t: t.replace("bow.brace_height_in", "bow.nonsense"), "entries.0.bow.nonsense", "not a setting"),
        ],
    )  # fmt: skip
    def test_damage_is_refused_with_its_place(self, spoil, field, words):
        text = write_rig(RIG, [entry(1, RIG, bow__brace_height_in=8.0)], AT)
        with pytest.raises(RefusedError) as caught:
            read_rig(spoil(text).encode())
        assert caught.value.field == field
        assert words in caught.value.reason

    def test_what_is_no_text_or_too_large(self):
        with pytest.raises(RefusedError, match="UTF-8"):
            read_rig(b"\xff\xfe\x00")
        with pytest.raises(RefusedError, match="too large"):
            read_rig(b" " * (MOST_BYTES + 1))


def drawn_lines(pdf):
    """Straight lines of the first page, as (x0, y0, x1, y1) in points."""
    data = PdfReader(io.BytesIO(pdf)).pages[0].get_contents().get_data().decode("latin-1")
    number = r"(-?\d+(?:\.\d+)?)"
    return [
        tuple(map(float, m))
        for m in re.findall(rf"{number} {number} m {number} {number} l S", data)
    ]


class TestSheet:
    def text(self, rig, units=None):
        pages = PdfReader(io.BytesIO(rig_sheet(Bench(rig, (), "2026-11-23"), units or {}))).pages
        return "\n".join(p.extract_text() for p in pages)

    def test_carries_settings_findings_and_the_chart(self):
        text = self.text(RIG)
        assert "Räucher & Söhne <b>" in text
        for words in (
            "Settings",
            "What matters",
            "Crawl chart",
            "Mind.",
            "2026-11-23",
            "Never dry-fire",
        ):
            assert words in text
        for row in Bench(RIG).aim.chart.rows:
            assert f"{row.crawl_mm:.0f}" in text

    def test_the_check_bar_is_50_mm(self):
        lengths = [
            x1 - x0
            for x0, y0, x1, y1 in drawn_lines(rig_sheet(Bench(RIG, (), "2026-11-23"), {}))
            if y0 == y1
        ]
        assert any(abs(length - 50 * MM) < 0.02 for length in lengths)

    def test_the_tab_card_is_at_true_size(self):
        """The marks below the arrow nock's line stand at the crawls, in millimetres."""
        rows = [r.crawl_mm for r in Bench(RIG).aim.chart.rows]
        lines = drawn_lines(rig_sheet(Bench(RIG, (), "2026-11-23"), {}))
        marks = [y0 for x0, y0, x1, y1 in lines if y0 == y1 and abs(x1 - x0 - 7 * MM) < 0.02]
        assert len(marks) == len(rows)
        gaps = [
            (a - b) / MM
            for a, b in zip(
                sorted(marks, reverse=True), sorted(marks, reverse=True)[1:], strict=False
            )
        ]
        expected = [b - a for a, b in zip(sorted(rows), sorted(rows)[1:], strict=False)]
        assert gaps == pytest.approx(expected, abs=0.02)

    def test_units_and_many_distances(self):
        many = changed(RIG, {"aim.distances_m": list(range(5, 64))})
        text = self.text(many, {"distance": "yd", "crawl": "mm_1", "draw": "mm"})
        assert "Distance (yd)" in text
        assert "hold over" not in self.text(RIG)
        assert "711" in text

    def test_a_rig_that_cannot_be_shot_still_prints_and_says_why(self):
        text = self.text(changed(RIG, {"arrow.shaft_length_in": 20.0}))
        assert "No crawl chart" in text
        assert "shorter than the" in text

    def test_a_left_hands_card_is_mirrored_and_each_crawl_says_its_state(self):
        def marks(hand):
            lines = drawn_lines(rig_sheet(Bench(changed(RIG, {"archer.hand": hand}), (), "2026-11-23"), {}))  # fmt: skip
            return {round(x0 / MM, 1) for x0, y0, x1, y1 in lines if y0 == y1 and abs(x1 - x0 - 7 * MM) < 0.02}  # fmt: skip

        (right,), (left,) = marks("right"), marks("left")
        assert right == pytest.approx(12, abs=0.1)  # from the card's own edge
        assert 46 - (left + 7) == pytest.approx(12, abs=0.1)
        text = self.text(changed(RIG, {"archer.hand": "left"}))
        assert "left hand" in text
        assert "computed, not yet shot" in text
        assert text.count("computed") >= len(Bench(RIG).aim.chart.rows)

    def test_numbers_stand_as_on_the_pages(self):
        """Each tally number with its ± and source, every stop and mind whole."""
        text = " ".join(self.text(RIG).split())
        for entry in tally(Bench(RIG)):
            v = entry.value
            told = write(v.value, v.quantity, None, v.plus_minus)
            mark = {"measured": "measured", "set": "set", "rule": "assumed", "model": "estimate"}
            assert f"{told} ({mark[entry.source]})" in text
        for f in findings_that_matter(Bench(RIG)):
            assert " ".join(f.said.plain().replace("’", "'").replace("−", "-").split()) in text

    def test_nothing_is_smaller_than_seven_points(self):
        pdf = rig_sheet(Bench(RIG, (), "2026-11-23"), {})
        data = b"".join(p.get_contents().get_data() for p in PdfReader(io.BytesIO(pdf)).pages)
        sizes = [float(m) for m in re.findall(rb"/F\d+ ([0-9.]+) Tf", data)]
        assert sizes
        assert min(sizes) >= 7

    def test_what_is_unsafe_or_due_stands_at_its_head(self):
        bad = changed(RIG, {"arrow.point_gr": 10.0, "arrow.grains_per_inch": 6.0})
        b = Bench(bad, (), "2026-11-23T10:00:00+00:00")
        pdf = rig_sheet(b, {}, schedule(b, []))
        text = PdfReader(io.BytesIO(pdf)).pages[0].extract_text()
        assert "Unsafe as it stands" in text
        assert "Due now: Look the bow over" in " ".join(text.split())
        assert text.index("Unsafe") < text.index("Settings")
        assert "Unsafe" not in self.text(RIG)

    @pytest.mark.parametrize(
        ("name", "told"),
        [("Field 70", True), ("Field 68", False), ("A 70 lb bow", False), ("Spring 2026", False)],
    )
    def test_a_name_that_tells_another_length_is_put_right(self, name, told):
        rig = changed(RIG, {"name": name, "bow.length_in": 68.0})
        assert ("the bow is 68 in now" in renamed(rig)) == told

    def test_stops_come_first(self):
        rig = changed(RIG, {"arrow.point_gr": 10.0, "arrow.grains_per_inch": 6.0})
        assert findings_that_matter(Bench(rig))[0].level == "stop"
        names = [name for name, _ in settings_rows(rig, Bench(rig), {})]
        assert len(names) == len(set(names))


def test_days_as_a_calendar_that_others_read():
    notes = [
        DayNote("a-1", "2026-12-31", "Up to 38.0 lb; at the earliest", "Only after\nthree holds."),
        DayNote("a-2", "2027-02-11", "Ünïcode, komma", "x" * 200),
    ]
    made = write_calendar("Steps", notes, "2026-05-01T10:00:00+02:00")
    assert made.startswith(b"BEGIN:VCALENDAR")
    assert all(len(line) <= 75 for line in made.split(b"\r\n"))
    events = Calendar.from_ical(made).walk("VEVENT")
    assert [str(e["summary"]) for e in events] == [n.title for n in notes]
    assert [str(e["description"]) for e in events] == [n.text for n in notes]
    assert [e.decoded("dtstart").isoformat() for e in events] == ["2026-12-31", "2027-02-11"]
    assert events[0].decoded("dtend").isoformat() == "2027-01-01"
    assert events[0].decoded("dtstamp").hour == 8
    assert len({str(e["uid"]) for e in events}) == 2


def test_brace_trials_as_csv():
    trials = [
        BraceTrial(brace_height_in=8.5, twists=24, levels_db=(60, 61, 62), feel=4, notes="=1+1"),
        BraceTrial(brace_height_in=8.25, reference="back", group_cm=12.5, arrows=6),
    ]
    text = write_trials([("2026-03-01", trials[0]), ("2026-03-02", trials[1])])
    head, one, two = csv.reader(io.StringIO(text))
    assert "brace height (in)" in head
    told = dict(zip(head, one, strict=True))
    assert (told["mean level (dB)"], told["scatter (dB)"]) == ("61.00", "1.00")
    assert told["notes"] == "'=1+1"
    assert dict(zip(head, two, strict=True))["mean level (dB)"] == ""
    assert dict(zip(head, two, strict=True))["group (cm)"] == "12.5"


def test_the_sheet_knows_what_the_trials_found():
    """A crack found stands on the paper too, and a bow that was looked over is not asked for it."""

    def words(*trials):
        kept = tuple(
            KeptTrial(i + 1, "2026-03-01T10:00:00+00:00", t, RIG) for i, t in enumerate(trials)
        )
        pdf = rig_sheet(Bench(RIG, kept, "2026-03-05T10:00:00+00:00"), {})
        return " ".join(
            " ".join(p.extract_text() for p in PdfReader(io.BytesIO(pdf)).pages).split()
        )

    looked = ("cracks", "tips")
    assert "not looked over" in words()
    assert "not looked over" not in words(InspectionTrial(looked=looked))
    assert "Do not shoot it until a bowyer" in words(
        InspectionTrial(looked=looked, found=("cracks",))
    )
    assert "2026-03-05" in words()


def test_the_sheet_prints_how_the_bow_is_set_up():
    def words(rig, *trials):
        kept = tuple(
            KeptTrial(i + 1, "2026-03-01T10:00:00+00:00", t, rig) for i, t in enumerate(trials)
        )
        pdf = rig_sheet(Bench(rig, kept, "2026-03-05T10:00:00+00:00"), {})
        return " ".join(
            " ".join(p.extract_text() for p in PdfReader(io.BytesIO(pdf)).pages).split()
        )

    hung = changed(Rig(), {"weights.middle_g": 120.0})
    read = NockReadTrial(height_mm=12.5, tail="low")
    told = words(hung, TillerTrial(upper_mm=190, lower_mm=189), read)
    for row in ("Final tiller 1.0 mm", "120 g by the grip", "Centre shot point", "Nock by reads"):
        assert row in told, row
    thumb = words(changed(hung, {"route": "thumb"}))
    assert "Final tiller" not in thumb
    assert "120 g" not in thumb
    assert "Nock by reads" not in thumb


EXAMPLES = {
    "draw": DrawTrial(method="tape", readings_in=(28.0,), draw_length_in=28.0, plus_minus_in=1.0),
    "weighing": WeighingTrial(readings=((20.0, 21.0), (28.0, 38.0))),
    "hold": HoldTrial(weight_lbf=38, seconds=9),
    "inspection": InspectionTrial(looked=("cracks", "string"), found=("string",)),
    "brace": BraceTrial(brace_height_in=8.5, levels_db=(60.0, 61.0)),
    "settling": SettlingTrial(hours=3, brace_height_in=8.25),
    "release": ReleaseTrial(places=("cracks",), word="Bowyer Ruta"),
    "coach": CoachTrial(weight_lbf=22, word="Coach Emil"),
    "in_line": InLineTrial(upper_mm=2, lower_mm=-1, upper_turns=-0.5, drawn="tracks"),
    "tiller": TillerTrial(upper_mm=190, lower_mm=187.5),
    "centre_shot": CentreShotTrial(gap_mm=-1.5),
    "nock_read": NockReadTrial(height_mm=12.5, tail="high", distance_m=4),
    "chronograph": ChronographTrial(mass_gr=400, speeds_fps=(180.0, 181.5)),
    "marks": MarksTrial(
        landed=(
            Landed(distance_m=10, crawl_mm=93),
            Landed(distance_m=30, crawl_mm=66, height_cm=-12.5, arrows=6),
        )
    ),
    "numbered": NumberedTrial(
        distance_m=30,
        landings=(
            Landing(number=1, right_cm=-4, up_cm=2),
            Landing(number=2, right_cm=3, up_cm=-6),
        ),
    ),
    "shaft_read": ShaftReadTrial(length_in=30.5, read="weak", distance_m=6),
    "flight_read": FlightReadTrial(test="kick_7_paces", nocks=(4, 7, 5), distance_m=5.5),
    "arrows_shot": ArrowsShotTrial(arrows=96),
    "aim_known": AimKnownTrial(known="crawl", distance_m=20, crawl_mm=80),
    "judging": JudgingTrial(guessed_m=(20, 31), walked_m=(18.5, 33)),
    "crawl_visit": CrawlVisitTrial(distance_m=20, crawl_mm=81.5, heights_cm=(1.5, -2.0, 3.0)),
    "clip": ClipTrial(
        frames_a_second=960,
        let_go=12,
        marks=(FrameMark(frame=3, nock_px=(10, 20.5), point_px=(610, 22)),),
        tail="clear",
    ),
    "group": GroupTrial(
        distance_m=18,
        impacts=(Impact(right_cm=1.5, up_cm=-2), Impact(right_cm=-4, up_cm=3, shaft="bare")),
    ),
    "walk_back": WalkBackTrial(distance_m=20, offsets_cm=(1.5, -2.0, 3.0)),
    "way": WayTrial(size_cm=22, distance_m=25, bow="flipped"),
    "arrow_weighing": ArrowWeighingTrial(mass_gr=400),
    "string_weighing": StringWeighingTrial(mass_gr=95),
    "quiet": QuietTrial(check="loose", before_db=(62.0,), after_db=(60.0,)),
}


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_of_trial_is_a_table_with_units_and_a_sentence(kind):
    trial = EXAMPLES[kind]
    head, line = csv.reader(io.StringIO(write_trials([("2026-03-01", trial)])))
    assert (head[0], head[-1]) == ("day", "notes")
    assert len(head) == len(line) == len(trial.columns()) + 2
    assert line[0] == "2026-03-01"
    assert trial.said().plain()
    assert set(trial.grounds) <= set(READS)
