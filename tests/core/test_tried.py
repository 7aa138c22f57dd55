"""An action that is offered is tried first: on any rig it leaves no stop and makes none."""

import random

import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.bow.form import FORMS
from lyrandis.core.fields import changed
from lyrandis.core.findings import Action, mind, say, stop
from lyrandis.core.fit.first_rig import RELEASE, first_rig, with_first_arrow
from lyrandis.core.parts import Rig
from lyrandis.core.stations import TELLERS, views
from lyrandis.core.stations.dangers import danger, dangers
from lyrandis.core.stations.tried import Proof

LENGTHS = {"longbow": (60, 72), "hybrid": (54, 68), "recurve": (56, 72), "static_tip": (46, 66)}
SEEDS = range(48)


def any_rig(seed):
    """A rig such as archers bring, and such as none should."""
    rng = random.Random(seed)
    form = rng.choice(list(LENGTHS))
    settings = {
        "bow.form": form, "bow.takedown": rng.random() < 0.5,
        "bow.length_in": rng.randint(*LENGTHS[form]),
        "bow.marked_weight_lbf": rng.uniform(15, 75),
        "bow.side_plate": rng.choice(["plunger", "leather", "felt", "hard"]),
        "bow.centre_cut_mm": rng.uniform(-10, 5),
        "bow.limb_material": rng.choice(["laminated", "solid_glass", "natural"]),
        "bow.tips": rng.choice(["working", "short", "long", "heavy"]),
        "bow.low_stretch_rated": rng.choice(["yes", "no", "unknown"]),
        "archer.draw_length_in": rng.uniform(22, 32),
        "archer.release": rng.choice(["split", "three_under", "thumb"]),
        "arrow.shaft_length_in": rng.uniform(24, 34),
        "arrow.grains_per_inch": rng.uniform(4, 12),
        "arrow.static_spine": rng.randint(300, 1300), "arrow.point_gr": rng.uniform(40, 250),
        "string.strands": rng.randint(6, 26),
        "string.material": rng.choice(["low_stretch", "polyester", "natural"]),
    }  # fmt: skip
    now_and_then = {
        "arrow.weighed_gr": rng.uniform(200, 700), "bow.brace_height_in": rng.uniform(5.5, 10),
        "string.length_in": settings["bow.length_in"] - rng.uniform(1, 6),
        "nock_height_mm": rng.uniform(-5, 30), "bow.maker_min_gpp": rng.uniform(6, 12),
        "step_up.goal_lbf": rng.uniform(20, 80), "bow.maker_brace_high_in": 8.0,
        "archer.draw_plus_minus_in": rng.uniform(0, 1),
    }  # fmt: skip
    settings |= {path: value for path, value in now_and_then.items() if rng.random() < 0.25}
    return changed(Rig(), settings)


def stops(told):
    return {
        danger(view.station, finding)
        for view in told if view.problem is None
        for finding in view.findings if finding.level == "stop"
    }  # fmt: skip


@pytest.mark.parametrize("seed", SEEDS)
def test_no_action_leaves_or_makes_a_stop(seed):
    b = Bench(any_rig(seed))
    told, before = views(b), dangers(b)
    assert stops(told) <= set(before), "a stop that is not among the dangers"
    for view in told:
        for finding in view.findings:
            if finding.action is None or not finding.action.changes:
                continue
            after = views(Bench(changed(b.rig, finding.action.changes)))
            made = stops(after) - stops(told)
            assert not made, (finding.said.plain(), finding.action.changes)
            if finding.level == "stop":
                assert danger(view.station, finding) not in stops(after)
            silent = {v.station for v in after if v.problem}
            assert silent <= {v.station for v in told if v.problem}


def test_a_heavier_point_is_not_offered_where_it_makes_the_arrow_too_weak():
    """Whatever is offered clears the arrow's stops; a shaft as stiff that weighs more always may."""
    light = {"arrow.grains_per_inch": 5.0, "arrow.point_gr": 60.0}
    for spine in (450, 900):
        rig = changed(Rig(), light | {"arrow.static_spine": spine})
        arrow = next(v for v in views(Bench(rig)) if v.station == "arrow")
        (offered,) = [f.action for f in arrow.findings if "Too light:" in f.said.plain()]
        if spine == 900:  # too weak as well: never a heavier point alone
            assert offered.changes["arrow.static_spine"] < 600
            assert "stiffer, heavier shaft" in offered.label.plain()
        else:
            assert offered.changes.keys() <= {"arrow.point_gr", "arrow.grains_per_inch"}
        heavier = changed(rig, offered.changes)
        assert not [d for d in dangers(Bench(heavier)) if d.station == "arrow"]


def test_the_first_that_holds_is_taken_and_none_where_none_does():
    b = Bench(changed(Rig(), {"archer.draw_length_in": 29.0, "arrow.shaft_length_in": 29.1}))
    bad = Action(label=say("shorter"), changes={"arrow.shaft_length_in": 29.05})
    good = Action(label=say("longer"), changes={"arrow.shaft_length_in": 31})
    unknown = Action(label=say("nonsense"), changes={"arrow.shaft_length_in": 900})
    short = next(f for f in TELLERS["draw"].tell(b).findings if f.level == "stop")
    proof = Proof(b)
    found = short.model_copy(update={"action": unknown, "instead": (bad, good)})
    assert proof.tried("draw", found).action == good
    none = short.model_copy(update={"action": bad, "instead": ()})
    assert proof.tried("draw", none).action is None
    only = mind(said=say("x"), why=say("y"), told="rule", action=bad)
    assert proof.tried("draw", only).action is None  # it moves a stop of another finding
    there = Action(label=say("go"), station="arrow")
    led = stop(said=short.said, why=short.why, told="rule", action=bad, instead=(there,))
    assert proof.tried("draw", led).action == there


@pytest.mark.parametrize("form", LENGTHS)
@pytest.mark.parametrize("weight", [28.0, 36.0, 45.0])
def test_a_first_rig_begins_with_an_arrow_that_nothing_speaks_against(form, weight):
    length = FORMS[form].reference_length_in
    rig = first_rig(form, length, weight, 28.0, "right", RELEASE[form], "New")
    b = Bench(rig)
    assert dangers(b) == {}
    arrow = next(v for v in views(b, ["arrow"]))
    assert [f.said.plain()[:9] for f in arrow.findings if f.level == "mind"] in (
        ["Look over"],
        ["Start wit", "Look over"],  # outside the spine model's fit practice has the word
    )


def test_a_bow_that_cannot_be_computed_keeps_the_ordinary_arrow():
    rig = changed(Rig(), {"bow.length_in": 40.0, "bow.takedown": False, "bow.marked_draw_in": 34.0})
    assert with_first_arrow(rig) == rig
