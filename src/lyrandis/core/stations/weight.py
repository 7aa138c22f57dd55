"""Weight: what the bow pulls at the archer's draw, and how that is known."""

from __future__ import annotations

import math

from lyrandis.core.arrow.shot import marking_sd_lbf
from lyrandis.core.bench import Bench
from lyrandis.core.findings import Finding, Level, Said, fine, mind, say, stop
from lyrandis.core.fit.put_on import RISER_SHARE_PER_IN
from lyrandis.core.stations.base import Answer, your_draw
from lyrandis.core.stations.holding import holding_findings
from lyrandis.core.stations.limbs import limb_findings
from lyrandis.core.stations.recalling import question_readings, recall

_NEAR_END_IN, _NEAR_MAKER_IN = 1.5, 0.5
_RISER_STEP_IN = 2.0

_NEAR_MARK_LBF = 0.6  # how far the model is off near the marked draw (A3)


def note(b: Bench) -> Said:
    """The weight at the draw."""
    weight = b.bow.weight
    measured = weight.source == "measured"
    return say("{weight}" if measured else "about {weight}", weight=("weight", weight.value))


def tell(b: Bench) -> Answer:
    """Weight at the true draw, slope and energy."""
    draw = b.archer.true_draw.value
    weight = b.bow.weight
    measured = weight.source == "measured"
    yours, values = your_draw(b)
    answer = say(
        f"{{weight}} at your {yours}, {'by the scale' if measured else 'estimated'}; each inch "
        "more adds {slope}, and the bow stores {energy}.",
        weight=("weight", weight),
        slope=("weight", b.bow.curve.slope(draw)),
        energy=("energy", b.bow.curve.energy_ftlb(draw)),
        **values,
    )
    findings = [
        *(recall(b, "bow.measured") or [_source(b, measured)]),
        *question_readings(b),
        *end(b),
        *holding_findings(b, weight.value),
        *limb_findings(b),
        *_riser(b, weight.value),
    ]
    return Answer(answer, findings)


def _source(b: Bench, measured: bool) -> Finding:
    if measured:
        n = b.bow.curve.measured_points
        known = b.bow.weight.plus_minus
        return fine(
            said=say(
                f"The curve passes through your {n} scale reading{'s' if n > 1 else ''}: your weight "
                "is known to {known}, {guess} by the marking alone.",
                known=("weight", known),
                guess=("weight", math.hypot(marking_sd_lbf(b.bow.force_lbf), known)),
            ),
            why=say("The readings correct the model's curve; its ± grows between and beyond them."),
            told="measured",
        )
    return mind(
        said=say(
            "The marked {marked} at {at} is only good to a pound or two. Pull a bow scale to {true} "
            "and enter the reading.",
            marked=("weight", b.rig.bow.marked_weight_lbf),
            at=("draw", b.rig.bow.marked_draw_in),
            true=("draw", b.archer.true_draw.value),
        ),
        why=say(
            "Until then the curve is the model's for this form and length, held to the marking. "
            "It is within {near} near the marked draw, and the marking itself is the larger doubt.",
            near=("weight", _NEAR_MARK_LBF),
        ),
        told="practice",
    )


def end(b: Bench) -> list[Finding]:
    """How far the draw stays from where the bow ends, by its geometry and its maker."""
    found = []
    longest = b.archer.longest_true_in
    left = b.bow.curve.end_in - longest
    if b.bow.stacks and b.bow.onset_in is not None:
        found.append(
            mind(
                said=say(
                    "You draw into the stack: an inch more costs {slope}.",
                    slope=("weight", b.bow.curve.slope(b.archer.true_draw.value)),
                ),
                why=say("It starts to stack at {onset}.", onset=("draw", b.bow.onset_in)),
                told="model",
            )
        )
    if left < _NEAR_END_IN:
        found.append(
            stop(
                said=say(
                    "The bow's geometry ends {left} beyond your longest draw. Never draw past it."
                    if left >= 0
                    else "Your longest draw is {left} past where the bow's geometry ends. Never "
                    "draw past it.",
                    left=("draw", abs(left)),
                ),
                why=say(f"At {{end}} {b.bow.curve.end_reason}.", end=("draw", b.bow.curve.end_in)),
                told="model",
            )
        )
    limit = b.rig.bow.maker_max_draw_in
    if limit is not None:
        spare = limit - longest
        level: Level = "fine" if spare >= _NEAR_MAKER_IN else "mind" if spare >= 0 else "stop"
        found.append(
            Finding(
                level=level,
                said=say(
                    "The maker allows {limit}, {left} beyond your longest draw."
                    if spare >= 0
                    else "The maker allows {limit}; on a bad day you draw {left} past it.",
                    limit=("draw", limit),
                    left=("draw", abs(spare)),
                ),
                why=say("The maker's limit always wins over the model's."),
                told="maker",
            )
        )
    return found


def _riser(b: Bench, weight: float) -> list[Finding]:
    if not b.rig.bow.is_takedown_recurve:
        return []
    return [
        fine(
            said=say(
                "On a riser {step} shorter these limbs would pull about {more} more, on a longer "
                "one as much less; the limb bolts move it by some percent.",
                step=("bow_length", _RISER_STEP_IN),
                more=("weight", _RISER_STEP_IN * RISER_SHARE_PER_IN * weight),
            ),
            why=say(
                "Practice's figure, 2 1/2 % for each inch of riser; this model would say 1.1 %. "
                "Bolts move the tiller too: weigh the bow and measure the tiller after each turn."
            ),
            told="practice",
        )
    ]
