"""Everything the models say about one rig, each number computed once and only when asked for."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from lyrandis.core.arrow.build import Build, build
from lyrandis.core.arrow.window import SpineWindow, refuse_short, spine_window
from lyrandis.core.bow.curve import ForceDraw, force_draw, refuse_past_end, stack_onset_in
from lyrandis.core.bow.form import TRADE_OFFSET_IN, brace_to_pivot_in, own_brace_in
from lyrandis.core.bow.geometry import Array
from lyrandis.core.bow.shot import Floor, Shot, arrow_floor, shot
from lyrandis.core.dates import day_of
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.fit.bow_length import School, angle_limit_deg, reserve_wanted_in, schools
from lyrandis.core.fit.candidates import Candidate, Equal, candidates
from lyrandis.core.fit.draw_history import DrawHistory, draw_history
from lyrandis.core.fit.draw_length import true_draw_in
from lyrandis.core.fit.hold import Hold, hold
from lyrandis.core.fit.length_map import LengthMap, length_map
from lyrandis.core.fit.limbs import BoltTurn, LimbPair, bolts, limb_pair
from lyrandis.core.fit.reach import Reach, reach
from lyrandis.core.fit.step_up import WeightStep, weight_steps
from lyrandis.core.rig import Rig
from lyrandis.core.trials import KeptTrial, standing
from lyrandis.core.tune.brace import BraceFit, brace_fit
from lyrandis.core.tune.crawls import (
    DRAG_PER_M,
    CrawlChart,
    Sight,
    crawl_chart,
    crawl_plus_minus_mm,
    point_on_m,
)
from lyrandis.core.tune.listening import Listening, listen
from lyrandis.core.tune.nock_point import NockStart, nock_start
from lyrandis.core.tune.quiet import Quiet, quiet
from lyrandis.core.tune.settling import Settling, settle
from lyrandis.core.tune.string import StringFit, string_fit, usual_length_in
from lyrandis.core.tune.twists import brace_per_string_slack, same_string
from lyrandis.core.units import KG_PER_GRAIN, M_PER_FT, M_PER_IN

EYE_SD_MM = 10.0  # an anchor's usual height is known to about this until a chart was shot
POINT_LENGTH_M = 0.025  # the tip stands this far ahead of the back of the point
_DRAG_REFERENCE = (6.0, 0.0227)  # the default drag is that of a 6 mm shaft of 350 gr


def drag_per_m(diameter_mm: float, mass_gr: float) -> float:
    """Drag κ [1/m] of an arrow: the default, scaled by section area and mass."""
    d, m = _DRAG_REFERENCE
    return DRAG_PER_M * (diameter_mm / d) ** 2 * m / (mass_gr * KG_PER_GRAIN)


@dataclass(frozen=True)
class Workbench:
    """A rig on the bench. Members raise RefusedError where the rig cannot be computed."""

    rig: Rig
    trials: tuple[KeptTrial, ...] = ()
    now: str = "1970-01-01T00:00:00+00:00"  # passed in where days matter: the core has no clock

    @cached_property
    def curve(self) -> ForceDraw:
        """The force–draw curve; refuses a draw past the bow's end or the maker's limit."""
        curve = force_draw(self.rig.bow, self.rig.string.material)
        self._refuse_draw(curve)
        return curve

    def _refuse_draw(self, curve: ForceDraw) -> None:
        draw, limit = self.true_draw.value, self.rig.bow.maker_max_draw_in
        if limit is not None and draw > limit:
            raise RefusedError(
                "archer.draw_length_in",
                f"{draw:.2f} in is past the {limit:g} in that the bow's maker allows. "
                "Never draw past the maker's limit.",
                limit,
                "in",
            )
        refuse_past_end(curve, draw, self.rig.bow.length_in)

    @cached_property
    def true_draw(self) -> Estimate:
        """The draw [in, trade] the bow is really pulled to."""
        return true_draw_in(self.rig.archer, self.rig.bow, self.rig.string.material)

    @cached_property
    def onset_in(self) -> float | None:
        """Draw [in] at which the bow starts to stack."""
        return stack_onset_in(self.rig.bow.model_copy(update={"measured": ()}))

    @cached_property
    def angle_deg(self) -> float:
        """String angle [deg] at the true draw."""
        return self.curve.angle(min(self.true_draw.value, float(self.curve.draw_in[-1])))

    @property
    def angle_limit_deg(self) -> float | None:
        """Least string angle [deg] for the release."""
        return angle_limit_deg(self.rig.archer.release, self.rig.schools)

    @property
    def reserve_wanted_in(self) -> float:
        """Inches wanted between the draw and the onset of stack."""
        return reserve_wanted_in(self.rig.use, self.rig.schools)

    @cached_property
    def schools(self) -> tuple[School, ...]:
        """The five schools on this bow."""
        r = self.rig
        return schools(r.archer, r.bow, self.true_draw.value, r.use, self.rig.schools)

    @cached_property
    def candidates(self) -> tuple[Candidate, ...]:
        """Bows that could be had, best first."""
        r = self.rig
        return candidates(
            r.archer, r.bow, self.true_draw.value, r.use, r.taste, r.schools, self.equal
        )

    @cached_property
    def equal(self) -> Equal:
        """What candidates are compared at: this rig's weight at the draw and its arrow."""
        try:
            weight = self.curve.force(self.true_draw.value)
        except RefusedError:  # the present bow cannot be drawn so far: compare at its marking
            weight = self.rig.bow.marked_weight_lbf
        return Equal(weight, self.build.mass_gr)

    @cached_property
    def reach(self) -> tuple[Reach, ...]:
        """This bow an inch under, at, and over the archer's draw."""
        draw = self.true_draw.value
        return reach(self.rig.bow, self.curve, self.onset_in, self.reserve_wanted_in, draw)

    @property
    def stroke_in(self) -> float:
        """The string's way from full draw to brace [in]."""
        return self.true_draw.value - TRADE_OFFSET_IN - brace_to_pivot_in(self.rig.bow)

    @cached_property
    def limb_pair(self) -> LimbPair:
        """Whether the two limbs work as a pair."""
        return limb_pair(self.rig.limbs, self.stroke_in, self.shot.speed_fps.value)

    @cached_property
    def bolts(self) -> BoltTurn:
        """What the limb bolts do as they stand."""
        r = self.rig
        return bolts(r.bow, r.string.material, r.limbs, self.true_draw.value)

    @cached_property
    def hold(self) -> Hold:
        """What the archer's holds say of this weight."""
        return hold(self.trials, self.curve.force(self.true_draw.value))

    @cached_property
    def weight_steps(self) -> list[WeightStep]:
        """The plan to go up in weight; refuses a goal that cannot be planned."""
        weight = self.curve.force(self.true_draw.value)
        return weight_steps(self.rig.step_up, self.rig.archer, weight, day_of(self.now))

    @cached_property
    def listening(self) -> Listening:
        """The latest session of brace trials."""
        return listen(self.trials, self.rig.bow)

    @cached_property
    def quiet(self) -> Quiet:
        """The latest session of quiet checks."""
        return quiet(self.trials)

    @cached_property
    def settling_run(self) -> list[KeptTrial]:
        """The readings of the latest new string, from the one when it was put on."""
        run: list[KeptTrial] = []
        for trial in standing(self.trials, "settling"):
            run = [trial] if trial.trial.hours == 0 else [*run, trial]
        return run

    @cached_property
    def settling(self) -> Settling | None:
        """How the latest new string settles; None without one."""
        run, r = self.settling_run, self.rig
        if not run:
            return None
        length = r.string.length_in or usual_length_in(r.bow)
        gain = brace_per_string_slack(self.curve.statics)
        return settle(r.string.material, length, gain, self.settling_readings)

    @property
    def settling_readings(self) -> list[tuple[float, float]]:
        """Hours braced and brace height [in, to the bow's own reference] of the new string."""
        return [
            (t.trial.hours, own_brace_in(self.rig.bow, t.trial.brace_height_in, t.trial.reference))
            for t in self.settling_run
        ]

    @cached_property
    def twists_seen(self) -> list[tuple[float, float]]:
        """Turns and brace height [in, own reference] measured with the string that is on now.

        Trials with another string, or before a new one was put on, say nothing of this one.
        """
        since = self.settling_run[0].seq if self.settling_run else 0
        return [
            (t.trial.twists, own_brace_in(self.rig.bow, t.trial.brace_height_in, t.trial.reference))
            for t in standing(self.trials, "brace")
            if t.trial.twists is not None
            and t.seq > since
            and same_string(t.rig.string, self.rig.string)
        ]

    @cached_property
    def draw_history(self) -> DrawHistory:
        """The archer's draws over time."""
        return draw_history(self.trials)

    @cached_property
    def length_map(self) -> LengthMap:
        """Draw over bow length, in regions."""
        return length_map(self.rig.bow, self.reserve_wanted_in)

    @cached_property
    def build(self) -> Build:
        """The arrow from its parts."""
        return build(self.rig.arrow)

    @cached_property
    def shot(self) -> Shot:
        """One shot; refuses an arrow shorter than the draw."""
        refuse_short(self.rig.archer, self.rig.arrow)
        return shot(self.rig.bow, self.rig.string, self.curve, self.true_draw, self.build.mass_gr)

    @cached_property
    def window(self) -> SpineWindow:
        """The first spine suggestion."""
        r = self.rig
        return spine_window(r.archer, r.bow, r.string, r.arrow, self.curve)

    @cached_property
    def stacks(self) -> bool:
        """Whether the bow stacks before the archer's draw."""
        return self.onset_in is not None and self.onset_in < self.true_draw.value

    @cached_property
    def floor(self) -> Floor:
        """How light an arrow may be, and this one's verdict."""
        stiff = self.rig.arrow.static_spine <= self.window.high
        return arrow_floor(self.rig.bow, self.shot.grains_per_pound, self.stacks, stiff)

    @cached_property
    def string_fit(self) -> StringFit:
        """What the bow asks of its string."""
        force = self.curve.force(self.true_draw.value)
        return string_fit(self.rig.bow, self.rig.string, self.curve.statics, force)

    @cached_property
    def brace(self) -> BraceFit:
        """The brace height against its range."""
        return brace_fit(self.rig.bow, self.rig.string, self.curve, self.true_draw.value)

    @cached_property
    def nock(self) -> NockStart:
        """The nock point against its ordinary start."""
        return nock_start(self.rig)

    @cached_property
    def sight(self) -> Sight:
        """What the archer looks along."""
        r = self.rig
        return Sight(
            speed_mps=self.shot.speed_fps.value * M_PER_FT,
            eye_mm=r.archer.eye_above_nock_mm,
            nock_to_tip_m=r.arrow.shaft_length_in * M_PER_IN + POINT_LENGTH_M,
            stroke_m=self.stroke_in * M_PER_IN,
            drag_per_m=drag_per_m(r.arrow.diameter_mm, self.build.mass_gr),
            slope_deg=r.aim.slope_deg,
        )

    @cached_property
    def chart(self) -> CrawlChart:
        """The crawl chart for the archer's distances."""
        r = self.rig
        return crawl_chart(
            self.sight,
            np.array(r.aim.distances_m),
            r.aim.spot_half_height_cm,
            r.archer.stitch_pitch_mm,
            r.archer.finger_width_mm,
        )

    @property
    def speed_sd_mps(self) -> float:
        """One standard deviation of the arrow's speed [m/s]."""
        return self.shot.speed_fps.plus_minus * M_PER_FT

    @cached_property
    def crawl_plus_minus_mm(self) -> Array:
        """± of each of the chart's crawls [mm]."""
        d = np.array(self.rig.aim.distances_m)
        return crawl_plus_minus_mm(self.sight, d, self.speed_sd_mps, EYE_SD_MM)

    @cached_property
    def point_on(self) -> Estimate | None:
        """Point-on distance [m]; None beyond 400 m."""
        here = self.chart.point_on_m
        if here is None:
            return None
        s, spread = self.sight, []
        for moved in (
            replace(s, speed_mps=s.speed_mps + self.speed_sd_mps),
            replace(s, eye_mm=s.eye_mm + EYE_SD_MM),
        ):
            there = point_on_m(moved)
            if there is not None:
                spread.append(there - here)
        return Estimate(
            value=here, plus_minus=float(np.hypot.reduce(spread or [here])), source="model"
        )
