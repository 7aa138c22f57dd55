"""Centre shot: where the point stands beside the string, and what that asks of the shaft."""

from __future__ import annotations

import math

from lyrandis.core.bench import Bench
from lyrandis.core.bench.cures import cure, moved_groups
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Action, Finding, Grounds, Said, fine, mind, say
from lyrandis.core.flex.window import GROUP_LN
from lyrandis.core.flight.gain import LEAST_GAIN
from lyrandis.core.flight.read_tests import STIFF_FROM
from lyrandis.core.stations.base import Answer
from lyrandis.core.tune.centre_shot import CentreShot

_EVIDENT_SD = 2.0  # a plate this many sd from where it is set stands elsewhere
_LEAST_MM = 0.25
_A_MM = 1.0


def note(b: Bench) -> Said:
    """Where the point stands."""
    return say("{gap}", gap=("small", b.centre_shot.at.gap_mm))


def tell(b: Bench) -> Answer:
    """The point beside the string, seen from behind."""
    at = b.centre_shot.at
    gap = ("small", abs(at.gap_mm), at.gap_sd_mm)
    hidden = at.gap_mm < 0
    answer = say(
        (
            "Seen from behind the string hides {gap} of the point"
            if hidden
            else "Seen from behind the point stands {gap} outside the string"
        )
        + ", by the plate as it is set.",
        gap=gap,
    )
    return Answer(answer, [*_looked(b, at), _place(b, at), *_asks(b), *_spring(b)])


def _looked(b: Bench, at: CentreShot) -> list[Finding]:
    """What looks at the point say of the plate's place."""
    seen = b.centre_shot.seen
    if seen is None:
        return [
            mind(
                said=say(
                    "Nock an arrow on the braced bow, look from behind with the string over the "
                    "middle of both limbs, and log where the point stands."
                ),
                why=say(
                    "At brace {plate} at the plate is {point} at the point: the look tells the "
                    "plate's place better than a rule at the window does.",
                    plate=("small", 1.0),
                    point=("small", at.per_mm),
                ),
                told="practice",
            )
        ]
    place, sd = seen
    off = place - b.rig.bow.plate_offset_mm
    why = say(
        "From {n} of yours: the point's place at brace, divided by how far the shaft reaches past "
        "the plate.",
        n=(f"{len(b.centre_shot.gaps_mm)} look" + ("s" if len(b.centre_shot.gaps_mm) > 1 else "")),
    )
    if abs(off) <= max(_EVIDENT_SD * sd, _LEAST_MM):
        return [
            fine(
                said=say("Your looks agree with the plate as it is set."), why=why, told="measured"
            )
        ]
    return [
        mind(
            said=say(
                f"By your looks the plate stands {{off}} farther {'out' if off > 0 else 'in'} than "
                "it is set here.",
                off=("small", abs(off), sd),
            ),
            why=why,
            told="measured",
            action=Action(
                label=say("Set the cut by the looks"),
                changes={"bow.centre_cut_mm": round(b.rig.bow.side_plate_mm - place, 1)},
            ),
        )
    ]


def _place(b: Bench, at: CentreShot) -> Finding:
    bow = b.rig.bow
    why = say(
        "Finger archers start with the point just outside the string, up to half a shaft; thumb "
        "archers mirror it. {plate} at the plate is {point} at the point when the bow is braced.",
        plate=("small", 1.0),
        point=("small", at.per_mm),
    )
    if bow.side_plate != "plunger":
        return fine(
            said=say(
                "A shelf bow is as it is cut, plus its plate: the plate's surface stands {off} "
                + ("short of centre." if bow.plate_offset_mm >= 0 else "past centre."),
                off=("small", abs(bow.plate_offset_mm)),
            ),
            why=why,
            told="practice",
        )
    if not at.move_mm:
        return fine(
            said=say(
                "That is an ordinary start: none to half a shaft, {high}, outside.",
                high=("small", at.high_mm),
            ),
            why=why,
            told="practice",
        )
    inward = at.move_mm < 0
    return mind(
        said=say(
            f"The point stands {'farther out' if inward else 'farther in'} than an ordinary start, "
            "none to {high} outside. Bring the plunger {move} " + ("in." if inward else "out."),
            high=("small", at.high_mm),
            move=("small", abs(at.move_mm)),
        ),
        why=why,
        told="practice",
        action=Action(
            label=say(
                f"Plunger {{move}} {'in' if inward else 'out'}", move=("small", abs(at.move_mm))
            ),
            changes=_moved(b, at.move_mm),
        ),
    )


def _moved(b: Bench, move_mm: float) -> dict[str, float]:
    """The plate so much farther out: by the plunger, or by the cut it was given up to."""
    bow = b.rig.bow
    if bow.side_plate_mm + move_mm >= 0 and bow.side_plate_mm:
        return {"bow.side_plate_mm": round(bow.side_plate_mm + move_mm, 2)}
    return {"bow.centre_cut_mm": round(bow.centre_cut_mm - move_mm, 2)}


def _asks(b: Bench) -> list[Finding]:
    """What the plate's place asks of the shaft, where the fit covers the bow."""
    try:
        window = b.arrow.window
    except RefusedError:
        return []
    if window.spine_28in is None or window.low is None or window.high is None:
        return [
            fine(
                said=say("Farther out wants a weaker shaft; how much cannot be told for this bow."),
                why=say("It lies outside what the spine model was fitted to; Arrow says where."),
                told="practice",
                action=Action(label=say("To Arrow"), station="arrow"),
            )
        ]
    stiffer = moved_groups(b, _moved(b, _A_MM))
    if stiffer is None or stiffer <= 0:
        return [
            fine(
                said=say(
                    "Farther out wants a weaker shaft to archers; the model cannot say how much "
                    "on this bow."
                ),
                why=say("A millimetre more leaves what it was fitted to, or moves it otherwise."),
                told="practice",
            )
        ]
    share = math.expm1(stiffer * GROUP_LN)
    spine = window.spine_28in.value
    values = {
        "plate": ("small", 1.0),
        "share": ("percent", 100 * share),
        "by": ("spine", spine * share),
    }
    why = say("By the spine window, moved along. Only reads of your own arrows decide.")
    error = b.spine_error_groups or 0.0
    suits = window.low <= b.arrow.build.acts_spine <= window.high
    told: Grounds = "model"
    if b.reading.kept:  # what flew counts before what was computed
        error = b.reading.error_groups[0]
        suits, told = abs(error) < STIFF_FROM, "measured"
    if suits:
        return [
            fine(
                said=say(
                    "{plate} farther out wants a shaft {share} weaker, {by} at its spine; yours "
                    "suits where it stands.",
                    **values,
                ),
                why=why,
                told=told,
            )
        ]
    looks, way = ("weak", "out") if error < 0 else ("stiff", "in")
    at = b.centre_shot.at
    low, high = ((end - at.gap_mm) / at.per_mm for end in (at.low_mm, at.high_mm))
    gain = b.reading.gain_of("cut").mean
    wanted = -error / gain if abs(gain) > LEAST_GAIN else math.inf
    found = cure(b, lambda by: _moved(b, by), wanted, _LEAST_MM, (low, high))
    if b.rig.bow.side_plate == "plunger" and found is not None and low <= found.by <= high:
        need = found.by
        way = "out" if need > 0 else "in"
        return [
            mind(
                said=say(
                    f"Your shaft looks {looks}: the plunger {{need}} farther {way} would bring it "
                    "{groups} of the {off} it is off, and the point would still stand where it "
                    "should.",
                    need=("small", abs(need)),
                    groups=("groups", abs(gain * found.groups)),
                    off=("groups", abs(error)),
                ),
                why=why,
                told=told,
                action=Action(
                    label=say(f"Plunger {{need}} {way}", need=("small", abs(need))),
                    changes=_moved(b, need),
                ),
            )
        ]
    return [
        mind(
            said=say(
                f"Your shaft looks {looks}, more than the plate can take up: {{plate}} farther "
                f"{way} is worth {{share}} of spine. That is a matter for the shaft.",
                plate=values["plate"],
                share=values["share"],
            ),
            why=why,
            told=told,
            action=Action(label=say("To Arrow"), station="arrow"),
        )
    ]


def _spring(b: Bench) -> list[Finding]:
    if b.rig.bow.side_plate != "plunger":
        return []
    return [
        fine(
            said=say("A firmer spring reads stiffer: depth first, then the spring, one at a time."),
            why=say("In the model of the shaft passing the bow it goes so in nine of ten bows."),
            told="model",
        )
    ]
