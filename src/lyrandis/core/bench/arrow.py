"""The arrow on this bow: its build, the shot, its floor and the spine window."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

from lyrandis.core.aim.aimed import aimed_arrow
from lyrandis.core.aim.speed_marks import Sighting, speed_from_marks
from lyrandis.core.arrow.build import Build, build
from lyrandis.core.arrow.chronograph import Calibrated, Known, Shots, calibrate
from lyrandis.core.arrow.shot import (
    Floor,
    Shot,
    arrow_floor,
    shot,
    shot_of,
    speed_fps,
    virtual_mass_gr,
    weight_at_28in,
)
from lyrandis.core.bench.archer import ArcherBench
from lyrandis.core.bench.bow import BowBench
from lyrandis.core.bench.true import still_true
from lyrandis.core.errors import RefusedError
from lyrandis.core.estimate import Estimate
from lyrandis.core.fit.limbs import LimbPair, limb_pair
from lyrandis.core.flex.of_rig import averaged_of
from lyrandis.core.flex.window import (
    SpineWindow,
    about_stiff_enough,
    refuse_short,
    spine_window,
    stiff_enough_spine,
)
from lyrandis.core.measured import Recalled
from lyrandis.core.parts import Arrow, Rig, String
from lyrandis.core.trials import KeptTrial
from lyrandis.core.units import M_PER_FT


@dataclass(frozen=True)
class ArrowBench:
    """The arrow, and what one shot does with it."""

    rig: Rig
    archer: ArcherBench
    bow: BowBench
    recalled: Mapping[str, Recalled] = field(default_factory=dict)
    trials: tuple[KeptTrial, ...] = ()

    @cached_property
    def build(self) -> Build:
        """The arrow from its parts; its mass after an earlier weighing where there was one."""
        built, weighed = build(self.rig.arrow), self.recalled.get("arrow.weighed_gr")
        if weighed is None:
            return built
        return replace(built, mass_gr=weighed.now.value, sd_gr=weighed.now.plus_minus)

    @property
    def string(self) -> String:
        """The string; its mass after an earlier weighing where there was one."""
        weighed = self.recalled.get("string.mass_gr")
        string = self.rig.string
        return string.model_copy(update={"mass_gr": weighed.now.value}) if weighed else string

    @cached_property
    def shot(self) -> Shot:
        """One shot; refuses an arrow shorter than the draw."""
        r = self.rig
        refuse_short(r.archer, r.arrow)
        modelled = shot(
            r.bow, self.string, self.bow.curve, self.archer.true_draw, self.build.mass_gr
        )
        try:
            known = self.calibration
        except RefusedError:  # speeds that are no bow's: the station says so, the model stands
            known = None
        if known is None:
            return modelled
        mass = self.build.mass_gr
        return shot_of(
            known.stored_energy_ftlb.value,
            known.virtual_mass_gr.value,
            modelled.weight_at_draw_lbf,
            mass,
            known.speed_fps(mass),
        )

    @cached_property
    def calibration(self) -> Calibrated | None:
        """What the chronograph says, by readings made with the rig as it is; None without any.

        Raises
        ------
        RefusedError : the speeds are not one bow's.
        """
        made = still_true(self.trials, "chronograph", self.rig)
        known_speeds = [told for _, told in self.by_landings if isinstance(told, Known)]
        if not made and not known_speeds:
            return None
        by_mass: dict[float, list[float]] = {}
        for kept in made:
            by_mass.setdefault(round(kept.trial.mass_gr), []).extend(kept.trial.speeds_fps)
        then = self._as_it_was(made[-1].rig if made else self.by_landings[-1][0].rig)
        known = then.calibrated(
            [Shots(m, tuple(v)) for m, v in sorted(by_mass.items())],
            known_speeds,
        )
        (energy, virtual), (energy_then, virtual_then) = self._modelled, then._modelled
        return known.moved(energy / energy_then, virtual - virtual_then)

    @cached_property
    def by_landings(self) -> list[tuple[KeptTrial, Known | RefusedError]]:
        """Each logging of where arrows landed, with the speed it tells or why it tells none."""
        told: list[tuple[KeptTrial, Known | RefusedError]] = []
        for kept in still_true(self.trials, "marks", self.rig):
            try:
                told.append((kept, self._as_it_was(kept.rig).by_marks(kept.trial.sightings)))
            except RefusedError as error:
                told.append((kept, error))
        return told

    def by_marks(self, sightings: Sequence[Sighting]) -> Known:
        """The speed of this arrow by where it landed.

        Raises
        ------
        RefusedError : no speed explains the marks.
        """
        mass = self.build.mass_gr
        energy, virtual = self._modelled
        modelled = float(speed_fps(energy, mass, virtual)) * M_PER_FT
        told = speed_from_marks(
            sightings, aimed_arrow(self.rig, modelled, self.bow.stroke_in, mass)
        )
        return Known(mass, told.times(1 / M_PER_FT))

    def _as_it_was(self, rig: Rig) -> ArrowBench:
        """The bench of the rig with which shots were made: nearly this one."""
        if rig == self.rig:
            return self
        archer = replace(self.archer, rig=rig)
        return replace(self, rig=rig, archer=archer, bow=replace(self.bow, rig=rig, archer=archer))

    @property
    def _modelled(self) -> tuple[float, float]:
        """Stored energy [ft·lb] and virtual mass [gr] by the model."""
        b = self.bow
        virtual = virtual_mass_gr(self.rig.bow, self.string, b.weight.value)
        return b.curve.energy_ftlb(b.draw_in), virtual

    @cached_property
    def window(self) -> SpineWindow:
        """The spine that suits, and the band about it; or why there is none."""
        return self.window_for(self.rig.arrow)

    def suits_at(self, length_in: float) -> float | None:
        """The spine that would suit this shaft at another length [in]; None outside the fit."""
        told = self.window_for(self.rig.arrow.model_copy(update={"shaft_length_in": length_in}))
        return None if told.spine_28in is None else told.spine_28in.value

    def window_for(self, arrow: Arrow) -> SpineWindow:
        """The spine that suits another arrow's make on this bow."""
        r = self.rig
        return spine_window(
            r.archer,
            r.bow,
            self.string,
            arrow,
            weight_at_28in(self.bow.curve),
            self.bow.weight,
            self.archer.true_draw.plus_minus,
            lambda guess: averaged_of(r, self.bow.drawn, arrow, guess),
            r.arrow_as_usual,
        )

    def calibrated(self, shots: Sequence[Shots], known: Sequence[Known] = ()) -> Calibrated:
        """Stored energy and virtual mass by a chronograph, against what the model says."""
        return calibrate(shots, *self._modelled, self.bow.weight.value, known)

    @property
    def gpp(self) -> Estimate:
        """Grains per pound at the true draw, with the weight's ±."""
        weight, gpp = self.bow.weight, self.shot.grains_per_pound
        return Estimate(
            value=gpp, plus_minus=gpp * weight.plus_minus / weight.value, source=weight.source
        )

    @property
    def stiff_enough(self) -> bool:
        """Whether the shaft is stiff enough for the weight, by practitioners' rule."""
        return self.build.acts_spine <= stiff_enough_spine(self.bow.weight.value)

    @cached_property
    def about_stiff_enough(self) -> Estimate:
        """That rule's spine with its ±."""
        return about_stiff_enough(self.bow.weight)

    @property
    def too_weak(self) -> bool:
        """Whether the shaft is weaker than that rule can mean."""
        rule = self.about_stiff_enough
        return self.build.acts_spine > rule.value + rule.plus_minus

    @cached_property
    def floor(self) -> Floor:
        """How light an arrow may be, and this one's verdict."""
        r, weight = self.rig, self.bow.weight
        return arrow_floor(
            r.bow,
            self.build.lightest_gr / self.bow.heaviest_lbf,
            self.bow.stacks,
            self.stiff_enough,
            virtual_mass_gr(r.bow, self.string, weight.value) / weight.value,
            r.size_term,
        )

    @cached_property
    def limb_pair(self) -> LimbPair:
        """Whether the two limbs work as a pair, at this arrow's speed."""
        return limb_pair(self.rig.limbs, self.bow.stroke_in, self.shot.speed_fps.value)
