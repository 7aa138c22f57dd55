"""The demo's scenario: the made-up Alder Mill Field Archers, three rigs and the club's rack.

Every date is counted from a fixed day, every scatter drawn from a fixed seed.
"""

from __future__ import annotations

from collections.abc import Mapping
from datetime import UTC, datetime, timedelta
from typing import Any

import numpy as np

from lyrandis.core.assembly import steps_for
from lyrandis.core.bow.curve import force_draw
from lyrandis.core.fit.draw_length import DrawLength, draw_length
from lyrandis.core.inspection import PLACES
from lyrandis.core.parts import (
    Archer,
    ArcherPart,
    Arrow,
    ArrowSet,
    Bow,
    BowPart,
    Course,
    Part,
    Rig,
    Routine,
    RoutineStep,
    Shaft,
    Slot,
    String,
    StringPart,
    Target,
)
from lyrandis.core.stops import Standing
from lyrandis.core.trials import (
    AimKnownTrial,
    ArrowsShotTrial,
    BraceTrial,
    CentreShotTrial,
    ChronographTrial,
    ClipTrial,
    CrawlVisitTrial,
    DrawTrial,
    FlightReadTrial,
    GroupTrial,
    HoldTrial,
    InLineTrial,
    InspectionTrial,
    JudgingTrial,
    MarksTrial,
    NockReadTrial,
    NumberedTrial,
    QuietTrial,
    SettlingTrial,
    ShaftReadTrial,
    StringWeighingTrial,
    TillerTrial,
    Trial,
    WalkBackTrial,
    WayTrial,
    WeighingTrial,
)
from lyrandis.core.trials.group import Impact
from lyrandis.core.trials.marks import Landed
from lyrandis.core.trials.numbered import Landing
from lyrandis.core.tune.nock_reads import Tail
from lyrandis.core.tune.quiet import CheckId
from lyrandis.store.rigs import RigStore

SEED = 1730
_AT_ONCE = 0.001  # days, about a minute
_FIRST_DAY = datetime(2026, 4, 11, 9, 30, tzinfo=UTC)


def _draws(rng: np.random.Generator, true_in: float, spread_in: float) -> list[float]:
    """Five readings of a marked arrow, to the sixteenth."""
    return [round(float(r) * 16) / 16 for r in rng.normal(true_in, spread_in, 5)]


def _weighed(bow: Bow, rng: np.random.Generator, real_lbf: float) -> list[list[float]]:
    """Readings of a club scale on a bow that really pulls `real_lbf`, to a fifth of a pound."""
    curve = force_draw(bow.model_copy(update={"marked_weight_lbf": real_lbf}))
    draws = (14.0, 18.0, 22.0, 25.0, 27.0, 28.0, 29.0)
    return [[d, round((curve.force(d) + rng.normal(0, 0.12)) * 5) / 5] for d in draws]


class _Logbook:
    """Keeps the scenario's changes, one day after another."""

    def __init__(self, store: RigStore, rig: Rig, day: int) -> None:
        self.store = store
        self.at = _FIRST_DAY + timedelta(days=day)
        self.kept = store.create(rig, created_at=self.at.isoformat(timespec="seconds"))

    def keep(
        self,
        station: str,
        changes: dict[str, Any],
        why: str = "",
        standing: Standing = "provisional",
        days: float = 0.02,
        trial: Trial | None = None,
    ) -> None:
        self.at += timedelta(days=days)
        self.kept = self.store.keep(
            self.kept.id,
            self.kept.seq,
            changes,
            station,
            standing,
            why,
            self.at.isoformat(timespec="seconds"),
            trial,
        )

    def check(self, station: str, standing: Standing) -> None:
        """Say of a station how it stands."""
        self.at += timedelta(days=0.02)
        at = self.at.isoformat(timespec="seconds")
        self.kept = self.store.check(self.kept.id, self.kept.seq, station, standing, at=at)

    def named(self, names: Mapping[Slot, str], cut_for: str | None = None) -> None:
        """Call the rig's parts by their names; `cut_for` says for which hand the bow is made."""
        at = self.at.isoformat(timespec="seconds")
        for slot, name in names.items():
            part = self.kept.parts[slot]
            hand = {"of.cut_for": cut_for} if cut_for and slot in ("bow", "riser") else {}
            self.store.rack.change(part.mark, part.seq, {"name": name} | hand, at=at)
        self.kept = self.store.get(self.kept.id)

    def put_on(self, slot: Slot, part: Part | str, why: str, days: float = 0.02) -> None:
        """Put a new part on, or one that is on the rack by its mark."""
        self.at += timedelta(days=days)
        at = self.at.isoformat(timespec="seconds")
        mark, new = (part, None) if isinstance(part, str) else (None, part)
        self.kept = self.store.put_on(self.kept.id, self.kept.seq, slot, mark, new, why, at)


def _tiller(log: _Logbook, looks: tuple[tuple[float, float, float, float], ...]) -> None:
    """Both distances [mm] after the bolts were turned so far out."""
    for upper, lower, above, below in looks:
        changes = {"limbs.upper_turns": above, "limbs.lower_turns": below}
        log.keep(
            "tiller", changes, trial=TillerTrial(upper_mm=upper, lower_mm=lower), days=_AT_ONCE
        )


def _drawn(readings: list[float], day: str = "", notes: str = "") -> tuple[DrawTrial, DrawLength]:
    """A measuring of the draw with a marked arrow, as a trial and as what it comes to."""
    told = draw_length("marked_arrow", readings)
    trial = DrawTrial(
        method="marked_arrow",
        readings_in=tuple(readings),
        draw_length_in=told.draw_length_in.value,
        plus_minus_in=told.draw_length_in.plus_minus,
        day=day,
        notes=notes,
    )
    return trial, told


def _takedown(store: RigStore, rng: np.random.Generator, later: np.random.Generator) -> None:
    """The club's field recurve; `later`: scatter that came to the scenario later."""
    trial, told = _drawn(_draws(rng, 28.7, 0.12))
    rig = Rig(
        name="Field recurve, crawls",
        use="range",
        taste=0.3,
        archer=Archer(name="Ilse Varga", release="three_under", finger_width_mm=17),
        bow=Bow(form="recurve", takedown=True, length_in=68, riser_in=25, marked_weight_lbf=34),
        string=String(material="polyester", strands=14),
        arrow=Arrow(shaft_length_in=30, static_spine=700, grains_per_inch=6.9, point_gr=100),
        routine=Routine(steps=tuple(
            RoutineStep(says=says, seconds=seconds)
            for says, seconds in (
                ("Feet, and the crawl", 4), ("Hook, grip", 3), ("Raise, draw", 3),
                ("Anchor, tip on the mark", 2.5), ("Back, and through", 2), ("Stay", 2),
            )
        )),
        courses=(
            Course(
                name="Beech valley",
                targets=(
                    Target(name="Hare by the stile", distance_m=12, spot_half_height_cm=4),
                    Target(name="Boar below the bank", distance_m=27, slope_deg=-14,
                           spot_half_height_cm=10),
                    Target(name="Stag across the dip", distance_m=38, slope_deg=3,
                           spot_half_height_cm=12),
                    Target(name="Fox up the ride", distance_m=21, slope_deg=18,
                           spot_half_height_cm=6),
                ),
            ),
        ),
    )  # fmt: skip
    log = _Logbook(store, rig, 0)
    log.keep(
        "draw",
        {
            "archer.draw_length_in": round(told.draw_length_in.value, 3),
            "archer.draw_method": "marked_arrow",
            "archer.draw_plus_minus_in": round(told.draw_length_in.plus_minus, 3),
        },
        "five draws with a marked arrow",
        "settled",
        trial=trial,
    )
    for day, draw, note in (
        ("2025-09-20", 28.2, "before the longer hold at anchor"),
        ("2026-01-17", 28.5, "winter course"),
    ):
        log.keep("draw", {}, trial=_drawn(_draws(rng, draw, 0.15), day, note)[0])
    log.keep("bow-length", {"bow.length_in": 68}, "long riser, medium limbs", "settled")
    readings = _weighed(rig.bow, rng, 35.1)
    log.keep(
        "weight",
        {"bow.measured": readings},
        "club scale",
        "settled",
        7,
        WeighingTrial(readings=tuple((d, f) for d, f in readings)),
    )
    for seconds, note in ((11.5, ""), (13.0, ""), (10.5, "after two minutes of rest")):
        log.keep(
            "weight",
            {},
            trial=HoldTrial(weight_lbf=36.8, seconds=seconds, ended="shaking", notes=note),
        )
    looked = tuple(PLACES)
    log.keep("bow-length", {}, trial=InspectionTrial(looked=looked, notes="by the window"))
    log.keep(
        "weight",
        {
            "step_up.goal_lbf": 42.0,
            "step_up.weeks": 8.0,
            "step_up.starts": "2026-05-02",
            "limbs.pair": "pair",
            "limbs.upper_lbf": 34.0,
            "limbs.lower_lbf": 34.0,
            "limbs.upper_class": "medium",
            "limbs.lower_class": "medium",
        },
        "limbs for the longer course next year",
        "settled",
    )
    log.named({
        "riser": "Alder riser, 25 in", "upper_limb": "Medium 34, upper",
        "lower_limb": "Medium 34, lower", "string": "Polyester, came with the bow",
        "arrows": "Field set",
    }, "right")  # fmt: skip
    log.put_on(
        "string",
        Part(
            name="Low-stretch, first made for it",
            of=StringPart(material="low_stretch", strands=14, length_in=64.5, twists=24),
        ),
        "the polyester one crept too far",
    )
    log.keep("string", {"bow.low_stretch_rated": "yes"}, "the maker says so", "settled")
    log.keep("string", {}, trial=StringWeighingTrial(mass_gr=102, notes="with both servings"))
    log.keep(
        "weight",
        {"bow.measured": _weighed(rig.bow, rng, 35.3)},
        "club scale, on the new string",
        "settled",
    )
    done = [step.id for step in steps_for(rig.bow)]
    log.keep("assembly", {"assembly.done": done[:-1]}, "all but the arm guard, borrowed out")
    log.keep("assembly", {"assembly.done": done}, "", "settled")
    _tiller(log, ((192.5, 187.0, 0.0, 0.0), (191.0, 188.5, -0.375, 0.375)))
    log.check("tiller", "provisional")
    for upper, lower, above, below, drawn in (
        (4.0, -1.5, 0.0, 0.0, "not_tried"), (1.5, -0.5, -0.5, 0.375, "not_tried"),
        (0.2, -0.4, -0.25, 0.125, "tracks"),
    ):  # fmt: skip
        look = InLineTrial.model_validate({
            "upper_mm": upper, "lower_mm": lower, "riser_mm": 0.0, "upper_turns": above,
            "lower_turns": below, "drawn": drawn, "twist": "none",
        })  # fmt: skip
        log.keep("in-line", {}, trial=look)
    log.check("in-line", "settled")
    cut = {"bow.centre_cut_mm": 5.0, "bow.side_plate_mm": 4.0, "bow.plunger_spring": "medium"}
    log.keep("centre-shot", cut, "with a caliper at the window", days=_AT_ONCE)
    for gap in (3.0, 2.5):
        seen = CentreShotTrial(gap_mm=gap)
        log.keep("centre-shot", {}, trial=seen, standing="settled", days=_AT_ONCE)
    log.keep(
        "weights",
        {"weights.middle_g": 140.0, "weights.lower_pocket_g": 60.0},
        "steadier in the wind",
        days=_AT_ONCE,
    )
    _tiller(log, ((190.0, 189.0, -0.625, 0.5),))
    log.keep(
        "weight",
        {"bow.measured": _weighed(rig.bow, later, 35.3)},
        "club scale, with the bolts as they are now",
        "settled",
        _AT_ONCE,
    )
    log.keep("brace", {"bow.brace_height_in": 8.5}, "quietest of five", "settled", 1)
    log.keep(
        "nock-point",
        {"nock_height_mm": 19.0, "nocking.fit": "snug"},
        "level bare shafts at the used crawls",
        "settled",
    )
    log.keep("arrow", {"arrow.diameter_mm": 5.8}, "measured with a caliper", days=2)
    log.keep("arrow", {"arrow.weighed_gr": 338}, "weighed six, mean")
    for mass, speed, note in ((338.0, 179.0, ""), (431.0, 162.0, "borrowed, heavier set")):
        shot = tuple(round(float(v), 1) for v in speed + later.normal(0, 1.4, 5))
        over = ChronographTrial(mass_gr=mass, speeds_fps=shot, notes=note)
        log.keep("arrow", {}, trial=over, days=_AT_ONCE)
    log.keep(
        "crawls",
        {
            "aim.distances_m": [5, 10, 15, 20, 25, 30, 35, 40, 45, 50],
            "archer.eye_above_nock_mm": 108,
        },
        "first chart",
    )
    field = log.kept.parts["arrows"].mark
    log.put_on(
        "arrows",
        Part(
            name="Indoor set",
            of=ArrowSet(
                shaft_length_in=31, static_spine=600, grains_per_inch=8.2, point_gr=120,
                diameter_mm=7.2, fletching_gr=16,
                shafts=tuple(
                    Shaft(number=n, mass_gr=round(404 + float(rng.normal(0, 2.2)), 1),
                          static_spine=round(600 + float(rng.normal(0, 9))),
                          state="broken" if n == 5 else "whole")
                    for n in range(1, 9)
                ),
            ),
        ),
        "fat shafts for the short winter range",
        3,
    )  # fmt: skip
    log.keep("arrow", {}, "close reads straight", "provisional")
    log.put_on("arrows", field, "back to the field course", 5)
    log.keep(
        "brace",
        {"bow.brace_height_in": 8.25},
        "new string sits lower after a week",
        "provisional",
        2,
    )


def _woodland(store: RigStore, rng: np.random.Generator, later: np.random.Generator) -> None:
    """A walker's wood arrows; `later`: scatter that came to the scenario later."""
    trial, told = _drawn(_draws(rng, 27.4, 0.18))
    rig = Rig(
        name="Woodland one-piece",
        use="woodland",
        taste=-0.3,
        archer=Archer(
            name="Bram Oakley", release="split", hand="left", anchor="cheek", eye_above_nock_mm=74
        ),
        bow=Bow(
            form="hybrid", takedown=False, length_in=62, marked_weight_lbf=42,
            side_plate="leather", centre_cut_mm=-1.5, maker_brace_low_in=6.75, maker_brace_high_in=7.75,
        ),
        string=String(material="polyester", strands=14),
        arrow=Arrow(
            material="wood", shaft_length_in=29.5, grains_per_inch=10.4, diameter_mm=8.7,
            static_spine=600, point_gr=125, insert_gr=0, nock_gr=11, fletching_gr=21,
        ),
    )  # fmt: skip
    log = _Logbook(store, rig, 16)
    log.keep(
        "draw",
        {
            "archer.draw_length_in": round(told.draw_length_in.value, 3),
            "archer.draw_method": "marked_arrow",
            "archer.draw_plus_minus_in": round(told.draw_length_in.plus_minus, 3),
        },
        "anchor moved to the corner of the mouth",
        trial=trial,
    )
    log.keep("bow-length", {"bow.length_in": 62}, "walks well under the beeches")
    log.keep("string", {"string.strands": 14, "string.length_in": 59, "string.twists": 30})
    log.named({
        "bow": "Ash and walnut, 62 in", "string": "Flax-brown polyester", "arrows": "Spruce set",
    }, "left")  # fmt: skip
    log.keep("brace", {"bow.brace_height_in": 7.25}, "inside the maker's range", days=1)
    for brace, turns, level, feel in (
        (7.25, 30, 62.6, 3), (7.0, 18, 65.4, 2), (7.375, 35, 61.2, 4),
    ):  # fmt: skip
        heard = tuple(round(float(v), 1) for v in level + rng.normal(0, 0.9, 3))
        listened = BraceTrial(
            brace_height_in=brace, twists=turns, levels_db=heard, heard_by="meter", feel=feel
        )
        log.keep("brace", {}, trial=listened)
    log.keep("nock-point", {"nock_height_mm": 12.5, "nocking.fit": "snug"}, days=0.1)
    reads: tuple[tuple[float, Tail, float], ...] = (
        (12.5, "high", 4.0), (8.5, "low", 4.0), (11.5, "high", 4.0),
    )  # fmt: skip
    for height, tail, far in reads:
        read = NockReadTrial(height_mm=height, tail=tail, distance_m=far)
        log.keep("nock-point", {"nock_height_mm": height}, trial=read)
    checks: tuple[tuple[CheckId, float, float, str], ...] = (
        ("brace", 64.4, 62.2, "7 to 7 1/4 in"),
        ("strand", 62.2, 62.0, "one strand, waxed back"),
        ("loose", 62.6, 59.1, "quiver screw"),
    )
    for check, before, after, note in checks:
        heard, then = (
            tuple(round(float(v), 1) for v in mean + rng.normal(0, 0.9, 3))
            for mean in (before, after)
        )
        log.keep(
            "quiet", {}, trial=QuietTrial(check=check, before_db=heard, after_db=then, notes=note)
        )
    for taper, flight, arrows in ((5.0, "stiff", 3), (7.0, "stiff", 3), (8.0, "straight", 6)):
        changes = {"arrow.rear_taper_in": taper, "arrow.rear_end_mm": 7.6}
        flew = ShaftReadTrial.model_validate({
            "tuned": "rear_taper", "length_in": taper, "read": flight, "arrows": arrows,
            "distance_m": 6.0,
        })  # fmt: skip
        log.keep("arrow", changes, trial=flew, days=_AT_ONCE)
    log.keep(
        "arrow",
        {"arrow.weighed_gr": 458, "bow.centre_cut_mm": -1.5},
        "twelve shafts sorted",
        days=4,
    )
    spruce = log.kept.parts["arrows"]
    measured = [
        Shaft(number=n, mass_gr=round(458 + float(later.normal(0, 3)), 1),
              static_spine=round(600 + float(later.normal(0, 8))), runout_mm=0.2 * (n % 3),
              state="put_by" if n == 9 else "whole", notes="grain runs out" if n == 9 else "")
        for n in range(1, 11)
    ]  # fmt: skip
    store.rack.change(
        spruce.mark, spruce.seq, {"of.shafts": [s.model_dump(mode="json") for s in measured]},
        at=log.at.isoformat(timespec="seconds"),
    )  # fmt: skip
    log.kept = store.get(log.kept.id)
    for _ in range(4):
        aim = later.normal(0, 4, 2)
        landings = []
        for number in range(1, 9):
            right, up = aim + later.normal(0, 4.5, 2) + (np.array([13.0, -4.0]) * (number == 6))
            landings.append(
                Landing(number=number, right_cm=round(float(right)), up_cm=round(float(up)))
            )
        end = NumberedTrial(distance_m=25, landings=tuple(landings))
        log.keep("arrow", {}, trial=end, days=_AT_ONCE)
    bare = {"reading.left_out": ["clatter", "bare_shaft_15m"]}
    for left_out, flown in (
        (bare, FlightReadTrial(test="kick_7_paces", nocks=(4, 4, 5), distance_m=5.5)),
        ({}, FlightReadTrial(test="wear_marks", outcome="no", arrows=2)),
        ({}, FlightReadTrial(test="kick_3_paces", nocks=(5, 4, 4), distance_m=2.5)),
    ):
        log.keep("flight", left_out, trial=flown, days=_AT_ONCE)
    for distance, offsets in (
        (8.0, (0.5, -1.0, 1.5)), (16.0, (2.0, 3.5, 0.5)), (26.0, (6.0, 3.0, 7.5)),
    ):  # fmt: skip
        visit = WalkBackTrial(distance_m=distance, offsets_cm=offsets)
        log.keep("flight", {}, trial=visit, days=_AT_ONCE)
    scatter = np.random.default_rng(SEED + 3)
    for silencers, ends in ((30.0, 1), (15.0, 1), (0.0, 2)):
        steps = {"string.silencers_gr": silencers}
        for _ in range(ends):
            at = np.round(scatter.normal([-1.5, -3.0], 6.5, (6, 2)), 1).tolist()
            shot = GroupTrial(
                distance_m=18, impacts=tuple(Impact(right_cm=x, up_cm=y) for x, y in at)
            )
            log.keep("flight", steps, trial=shot, days=_AT_ONCE)
            steps = {}
    practice = ClipTrial(frames_a_second=960, tail="clear", by="simulated")
    log.keep("flight", {}, trial=practice, days=_AT_ONCE)
    sighters = CrawlVisitTrial(
        distance_m=15, crawl_mm=0, heights_cm=(24.0, 31.0, 27.5), arrows="sighters"
    )
    log.keep("crawls", {}, trial=sighters, days=_AT_ONCE)
    guessed = JudgingTrial(
        guessed_m=(14, 22, 31, 19, 40, 27, 12, 35), walked_m=(13, 19, 26.5, 18, 33, 24, 12.5, 29),
        ground="wood",
    )  # fmt: skip
    log.keep("crawls", {}, trial=guessed, days=_AT_ONCE)
    for arrows in (72, 48):
        log.keep("crawls", {}, trial=ArrowsShotTrial(arrows=arrows), days=_AT_ONCE)
    known = AimKnownTrial(known="point_on", distance_m=58, doubt_m=8)
    log.keep("crawls", {}, trial=known, days=_AT_ONCE)


def _static_tip(store: RigStore) -> None:
    rig = Rig(
        name="Horn-tip thumb bow",
        use="backyard",
        archer=Archer(name="Teodora Finch", release="thumb", draw_length_in=28.5,
                      draw_method="tape", draw_plus_minus_in=1.0, eye_above_nock_mm=80),
        bow=Bow(
            form="static_tip", takedown=False, length_in=60, marked_weight_lbf=38,
            limb_material="laminated", tips="long", side_plate="leather", centre_cut_mm=-6,
        ),
        string=String(material="polyester", strands=14),
        arrow=Arrow(
            material="cane", shaft_length_in=32, grains_per_inch=10.6, diameter_mm=8.0,
            static_spine=620, point_gr=125, insert_gr=0, nock_gr=8, fletching_gr=24,
        ),
    )  # fmt: skip
    log = _Logbook(store, rig, 40)
    log.named(
        {"bow": "Horn-tip, 60 in", "string": "Its bowyer's string", "arrows": "Cane set"}, "both"
    )
    log.keep("draw", {"archer.draw_length_in": 28.5}, "tape only so far")
    for hours, brace, days in ((0.0, 6.875, 0.1), (3.0, 6.625, 0.125)):
        log.keep("string", {}, trial=SettlingTrial(hours=hours, brace_height_in=brace), days=days)
    log.keep("brace", {"bow.brace_height_in": 6.75}, "as the bowyer braced it", days=0.5)
    landed = MarksTrial(
        landed=(
            Landed(distance_m=12, crawl_mm=66, height_cm=0, arrows=6),
            Landed(distance_m=25, crawl_mm=66, height_cm=-78, arrows=6),
        ),
        notes="thumb two marks low on the string",
    )
    log.keep("arrow", {}, trial=landed, days=_AT_ONCE)
    way = WayTrial(side="right", size_cm=19, arrows=6, distance_m=15)
    log.keep("arrow", {}, trial=way, days=_AT_ONCE)


def _rack(store: RigStore) -> None:
    """Who else is in the club, and the two bows that it lends."""
    at = (_FIRST_DAY + timedelta(days=30)).isoformat(timespec="seconds")
    for name, of in (
        ("Mina Corvin", ArcherPart(draw_length_in=23.5, release="split", grown="child")),
        ("Jonas Reedy", ArcherPart(draw_length_in=29.25, release="three_under", hand="left")),
        ("Ada Lindgren", ArcherPart(draw_length_in=27.0, release="split")),
    ):
        store.rack.make(Part(name=name, of=of), at)
    light = BowPart(form="longbow", length_in=58, marked_weight_lbf=18, marked_draw_in=24,
                    side_plate="leather", centre_cut_mm=-3, cut_for="both")  # fmt: skip
    lent = store.rack.make(Part(name="Club longbow, light", of=light), at)
    store.rack.change(
        lent.mark,
        0,
        {
            "keeping.state": "lent", "keeping.to": "Mina Corvin", "keeping.since": "2026-05-12",
            "keeping.due_back": "2026-09-30",
        },
        "for the summer course",
        (_FIRST_DAY + timedelta(days=31)).isoformat(timespec="seconds"),
    )  # fmt: skip
    hybrid = BowPart(form="hybrid", length_in=64, marked_weight_lbf=32, side_plate="leather",
                     centre_cut_mm=-1, maker_max_draw_in=29.5, cut_for="right")  # fmt: skip
    store.rack.make(Part(name="Club bow, reflex–deflex", of=hybrid), at)
    string = StringPart(strands=12, length_in=61, twists=20, build="two_bundle")
    store.rack.make(Part(name="Club polyester, 61 in", of=string), at)


def load(store: RigStore) -> None:
    """Make the demo's rigs in an empty store; the same ones each time."""
    rng = np.random.default_rng(SEED)
    marks = np.random.default_rng(SEED + 1)
    given, store.rack.new_mark = store.rack.new_mark, lambda: marks.bytes(16).hex()
    later = np.random.default_rng(SEED + 2)
    try:
        _takedown(store, rng, later)
        _woodland(store, rng, later)
        _static_tip(store)
        _rack(store)
    finally:
        store.rack.new_mark = given


def reset(store: RigStore) -> None:
    """Clear the store and load the demo anew."""
    store.clear()
    load(store)
