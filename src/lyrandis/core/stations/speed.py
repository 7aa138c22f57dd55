"""What the chronograph says of the bow, as findings of the arrow's station."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Finding, fine, mind, say, verbatim

_WHY = say(
    "1 over speed squared is a straight line over the arrow's weight: its slope is the energy, where "
    "it meets the axis what moves besides the arrow. It is combined with what the model says, each "
    "by how sure it is."
)

_LANDED_WHY = say(
    "Where arrows landed tells a speed only where some speed explains it. Put it right or strike it "
    "out; until then it counts for nothing."
)


def chronographed(b: Bench) -> list[Finding]:
    """Energy and virtual mass by the readings, what they lack, or why they are no bow's."""
    refused = [
        mind(said=error.said or verbatim(error.reason), why=_LANDED_WHY, told="model")
        for _, error in b.arrow.by_landings
        if isinstance(error, RefusedError)
    ]
    try:
        told = b.arrow.calibration
    except RefusedError as error:
        return [mind(said=error.said or verbatim(error.reason), why=_WHY, told="model"), *refused]
    if told is None:
        return refused
    how = "the chronograph" if told.shots else "where the arrows landed"
    found = [
        *refused,
        fine(
            said=say(
                f"By {how} the arrow shares {{energy}} with {{virtual}} of limbs and string.",
                energy=("energy", told.stored_energy_ftlb),
                virtual=("mass", told.virtual_mass_gr),
            ),
            why=_WHY,
            told="measured",
        ),
    ]
    left_out = sum(len(out) for out in told.outliers)
    if left_out:
        found.append(
            mind(
                said=say(
                    f"{left_out} shot{'s' if left_out > 1 else ''} lay far from the others and "
                    f"{'were' if left_out > 1 else 'was'} left out."
                ),
                why=say(
                    "Beyond three scaled deviations of their median: a short draw, or a misread."
                ),
                told="measured",
            )
        )
    if not told.line and told.shots:
        found.append(
            fine(
                said=say(
                    "One arrow weight tells the energy only: shoot one a quarter heavier or lighter "
                    "too, and other weights' speeds are known as well."
                ),
                why=_WHY,
                told="model",
            )
        )
    return found
