"""Flight: how the shaft passes the bow by the model, what the reads say, and what to read next."""

from __future__ import annotations

import math

from lyrandis.core.bench import Bench
from lyrandis.core.bench.cures import LEAST_BROUGHT, cure
from lyrandis.core.findings import Action, Finding, Said, fine, joined, mind, say
from lyrandis.core.flex.window import GROUP_LN
from lyrandis.core.flight.gain import LEAST_GAIN
from lyrandis.core.flight.held import ENOUGH
from lyrandis.core.flight.read_filter import ClassId, NextTest, Reading, Reason, Verdict
from lyrandis.core.flight.read_words import HOW, TITLES, outcome_words
from lyrandis.core.stations.base import Answer
from lyrandis.core.tune.walk_back import COUNTS_CM

IS: dict[ClassId, str] = {
    "false_weak": "so stiff that it bounces off the side plate and looks weak",
    "stiff": "stiff",
    "right": "right",
    "weak": "weak",
}
_NAMED: dict[ClassId, str] = {
    "false_weak": "a bounce", "stiff": "stiff", "right": "right", "weak": "weak",
}  # fmt: skip
_MOST_POINT_STEP_GR, _LEAST_POINT_GR = 50.0, 40.0
_SPINE_STEP, _POINT_STEP_GR = 10.0, 5.0
_TOUCHES_FROM = 0.4  # the chance from which it is said
_TELLING = 1.25  # a read so many times likelier one way is told as a reason
_MOST_TOLD = 3


def note(b: Bench) -> Said:
    """What the reads come to."""
    if not b.reading.kept:
        return say("not read yet")
    if b.reading.after_change:
        return say("changed since it was read")
    told, best = b.reading.verdict, b.reading.verdict.between[0]
    sure = ("percent", 100 * told.classes[best])
    return say(f"{_NAMED[best]}, {{sure}}", sure=sure)


def tell(b: Bench) -> Answer:
    """Whether the arrow leaves straight."""
    reading = b.reading
    if not reading.kept:
        return Answer(
            _unread(b),
            [_first(), *_by_model(b), *_false_weak(b), *_walked_back(b), *_grouped(b), _care(b)],
        )
    told = reading.verdict
    findings = [
        *([_after_change(b)] if reading.after_change else [_verdict(b, told)]),
        *_next(b, told),
        *_touching(told),
        *_reasons(b, told),
        *_as_foretold(b),
        *_against(b),
        *_by_model(b),
        *_false_weak(b),
        *_held(b),
        *_filmed(b),
        *_walked_back(b),
        *_grouped(b),
        _care(b),
    ]
    return Answer(_read(b, told), findings)


def _unread(b: Bench) -> Said:
    acts = ("spine", b.arrow.build.acts_spine)
    window = b.arrow.window
    suits = window.spine_28in
    if suits is None or window.low is None or window.high is None:
        return say(
            "Spine {acts} is not read on this bow yet, and no model covers it: what flies decides.",
            acts=acts,
        )
    if window.low <= acts[1] <= window.high:
        leaves = "may well leave clean"
    else:
        leaves = f"leaves {'stiff' if acts[1] < suits.value else 'weak'}"
    return say(
        f"Not read yet; by the model spine {{acts}} {leaves}; {{suits}} should be clean.",
        acts=acts,
        suits=("spine", suits),
    )


def _read(b: Bench, told: Verdict) -> Said:
    best = told.between[0]
    reads = "reads" if len(b.reading.kept) > 1 else "read"
    values: dict[str, str | tuple[str, float]] = {
        "sure": ("percent", 100 * told.classes[best]),
        "n": ("count", len(b.reading.kept)),
    }
    if b.reading.after_change:
        return say(
            f"Changed since it was read: by {{n}} {reads} before it should now be {IS[best]}, "
            "{sure}.",
            **values,
        )
    if told.lacks == "look":
        return say(f"After {{n}} {reads} it may bounce ({{sure}}): see how it looks.", **values)
    if told.lacks == "push":
        return say(f"After {{n}} {reads} it is weak, or bounces ({{sure}}): push it.", **values)
    if told.stop == "found":
        return say(f"By {{n}} {reads} the shaft is {IS[best]}: {{sure}}.", **values)
    if told.stop == "within_a_group":
        values["sure"] = ("percent", 100 * told.within)
        return say(f"By {{n}} {reads} the shaft is right within a group: {{sure}}.", **values)
    if told.stop == "borderline":
        other = _NAMED[told.between[1]]
        return say(
            f"By {{n}} {reads} it is borderline between {_NAMED[best]} ({{sure}}) and {other}.",
            **values,
        )
    return say(f"After {{n}} {reads} it leans to {_NAMED[best]}, {{sure}}: read on.", **values)


def _first() -> Finding:
    return mind(
        said=say(
            "Shoot three from seven paces at chest height, and log where each arrow nock leans."
        ),
        why=say(
            "Close reads show the most; one arrow proves nothing. Shooting down at a low butt "
            "shortens your draw and reads stiff."
        ),
        told="practice",
    )


def _verdict(b: Bench, told: Verdict) -> Finding:
    best = told.between[0]
    why = say(
        "Every read is weighed by how likely it is for a shaft that is right, stiff, weak, or so "
        "stiff that it bounces; with the model's prediction where it covers the bow, your release "
        "and how you may turn the bow. Nine in ten is called found."
    )
    sure = ("percent", 100 * told.classes[best])
    if told.lacks:
        return _unproven(told)
    if told.stop == "within_a_group":
        return fine(
            said=say(
                "The shaft is right within a group ({within}): no further test is worth its arrows.",
                within=("percent", 100 * told.within),
            ),
            why=why,
            told="measured",
        )
    if told.stop is None:
        return mind(
            said=say(f"Not settled: {IS[best]} is the likeliest, {{sure}}.", sure=sure),
            why=why,
            told="measured",
        )
    if told.stop == "borderline":
        return mind(
            said=say(
                f"It lies between {_NAMED[best]} and {_NAMED[told.between[1]]}, and no further test "
                "is worth its arrows: make the smaller change first, and read.",
            ),
            why=why,
            told="measured",
        )
    if best == "right":
        return fine(
            said=say("The shaft is right for this bow and hand: {sure}.", sure=sure),
            why=why,
            told="measured",
        )
    if best == "false_weak":
        said = say(
            "It looks weak because it bounces off the side plate: {sure}. It is far too stiff; do "
            "not go stiffer still.",
            sure=sure,
        )
    else:
        said = say(f"The shaft is {IS[best]}: {{sure}}.", sure=sure)
    actions = _cures(b)
    told_so = mind(said=said, why=why, told="measured", action=actions[0] if actions else None)
    return told_so.model_copy(update={"instead": actions[1:]})


def _unproven(told: Verdict) -> Finding:
    """A bounce that is likely and not proven."""
    sure = ("percent", 100 * told.classes["false_weak"])
    said = (
        "It is weak, or so stiff that it bounces ({sure}): push it before you believe either."
        if told.lacks == "push"
        else "It may be so stiff that it bounces ({sure}): read it, then push it, before you believe it."
    )
    return mind(
        said=say(said, sure=sure),
        why=say(
            "Scuffs and clatter come from a vane on the riser, a low nock on the rest or the string "
            "on a sleeve too. Only a push tells: brace up and down, silencers, felt on the plate, a "
            "short draw. A bounce moves the read the wrong way."
        ),
        told="measured",
    )


def _touching(told: Verdict) -> list[Finding]:
    """What else may touch the bow."""
    if told.touches < _TOUCHES_FROM:
        return []
    return [
        mind(
            said=say(
                "Something else than a bounce may touch the bow ({touches}): a vane on the riser, a "
                "low nock on the rest, the string on a sleeve.",
                touches=("percent", 100 * told.touches),
            ),
            why=say(
                "Look where the scuff sits: on the side plate it is the shaft, on the rest the nock "
                "or a vane. Turn the arrow nock a little, raise the nock point a little, and look "
                "again."
            ),
            told="measured",
        )
    ]


def _cures(b: Bench) -> tuple[Action, ...]:
    """What would bring it to right: by the point where that is little, else another shaft."""
    if b.arrow.window.spine_28in is None:
        return ()
    error, _ = b.reading.error_groups
    farthest = max(abs(error), abs(b.spine_error_groups or 0.0))  # reads only say far, beyond three
    arrow, told = b.rig.arrow, []

    def heavier(by: float) -> dict[str, float]:
        return {"arrow.point_gr": arrow.point_gr + by}

    gain = b.reading.gain_of("point").mean
    point = cure(
        b,
        heavier,
        -error / gain if abs(gain) > LEAST_GAIN else math.inf,
        _POINT_STEP_GR,
        (max(-_MOST_POINT_STEP_GR, _LEAST_POINT_GR - arrow.point_gr), _MOST_POINT_STEP_GR),
    )
    if point is not None and abs(gain * point.groups) >= LEAST_BROUGHT * farthest:
        grains = round(arrow.point_gr + point.by, 2)
        told.append(
            Action(
                label=say("Try a point of {point}", point=("mass", grains)),
                changes={"arrow.point_gr": grains},
            )
        )
    spine = arrow.static_spine * math.exp(error * GROUP_LN)
    spine = round(spine / _SPINE_STEP) * _SPINE_STEP
    if spine != arrow.static_spine:
        told.append(
            Action(
                label=say("Try spine {spine}", spine=("spine", spine)),
                changes={"arrow.static_spine": spine},
            )
        )
    return tuple(told)


def _after_change(b: Bench) -> Finding:
    expected = b.reading.expected
    assert expected is not None
    shown = outcome_words(expected.test, expected.outcome, b.rig.arrow_left)
    return mind(
        said=say(
            f"What the next read should show: {TITLES[expected.test]}, {shown} ({{chance}}).",
            chance=("percent", 100 * expected.chance),
        ),
        why=say(
            "The belief moved by what the change is predicted to do, half a group either way; "
            "whether the shaft bounces is open again. A read that shows otherwise counts against it."
        ),
        told="model",
    )


_WORTH = {None: "it tells the most for its cost", "look": "a bounce looks weak",
          "push": "only a push proves a bounce"}  # fmt: skip


def _next(b: Bench, told: Verdict) -> list[Finding]:
    """The most telling test for its cost, what each outcome would mean, and what was passed over."""
    if told.stop is not None or not told.next or b.reading.after_change:
        return []
    best = told.next[0]
    why = say(HOW[best.test])
    for outcome in sorted(best.outcomes, key=lambda o: -best.outcomes[o][0])[:_MOST_TOLD]:
        why = why + _would_mean(b, best, outcome)
    passed = [TITLES[t.test] for t in told.next[1:4]]
    if passed:
        why = why + say(
            f"Passed over, telling less for their arrows and time: {'; '.join(passed)}."
        )
    return [
        mind(
            said=say(
                f"Next: {TITLES[best.test]}, {{arrows}} and {{minutes}} "
                f"minute{'' if best.minutes == 1 else 's'}; "
                f"{_WORTH[told.lacks]}.",
                arrows=f"{best.arrows} arrows" if best.arrows else "no arrow",
                minutes=("count", best.minutes),
            ),
            why=why,
            told="model",
        )
    ]


def _would_mean(b: Bench, test: NextTest, outcome: str) -> Said:
    chance, classes = test.outcomes[outcome]
    likeliest = max(classes, key=lambda c: classes[c])
    shown = outcome_words(test.test, outcome, b.rig.arrow_left)
    return say(
        f"“{shown[:1].upper()}{shown[1:]}” ({{chance}}) would make it {_NAMED[likeliest]}, {{then}}.",
        chance=("percent", 100 * chance),
        then=("percent", 100 * classes[likeliest]),
    )


def _reason(b: Bench, reason: Reason) -> Said:
    shown = _shown(b, reason.reading)
    times = max(reason.times, 1 / reason.times)
    return say(f"{shown}, {times:.1f} times likelier")


def _shown(b: Bench, reading: Reading) -> str:
    words = outcome_words(reading.test, reading.outcome, b.rig.arrow_left)
    return f"{TITLES[reading.test]} ({words})"


def _reasons(b: Bench, told: Verdict) -> list[Finding]:
    """The reads that speak for and against the likeliest class, the strongest first."""
    best, rival = (_NAMED[c] for c in told.between)
    found = []
    for speaks, reasons in (
        (best, [r for r in told.reasons if r.times >= _TELLING]),
        (rival, [r for r in told.reasons if r.times <= 1 / _TELLING]),
    ):
        if not reasons:
            continue
        strongest = sorted(reasons, key=lambda r: -abs(math.log(r.times)))[:_MOST_TOLD]
        listed = _reason(b, strongest[0])
        for reason in strongest[1:]:
            listed = joined(listed, _reason(b, reason), "; ")
        than = rival if speaks == best else best
        found.append(
            fine(
                said=listed.around(f"For {speaks} rather than {than}: ", "."),
                why=say(
                    "How many times likelier each read is if the one is true than if the other is; "
                    "a test's second reading counts less, for it shares its bias with the first."
                ),
                told="measured",
            )
        )
    return found


def _as_foretold(b: Bench) -> list[Finding]:
    """Whether the first read after a change showed what it should."""
    told = b.reading.foretold
    if told is None:
        return []
    expected, shown, chance = told
    left = b.rig.arrow_left
    was = outcome_words(shown.test, shown.outcome, left)
    why = say(
        "Before it was read, the belief was moved by what the change is predicted to do; this is "
        "how likely each outcome then was."
    )
    if shown.outcome == expected.outcome:
        return [
            fine(
                said=say(
                    f"After the change it showed what it should: {TITLES[shown.test]}, {was} "
                    "({chance}).",
                    chance=("percent", 100 * chance),
                ),
                why=why,
                told="measured",
            )
        ]
    should = outcome_words(expected.test, expected.outcome, left)
    return [
        mind(
            said=say(
                f"After the change {TITLES[shown.test]} should have shown {should} ({{likely}}); it "
                f"showed {was} ({{chance}}).",
                likely=("percent", 100 * expected.chance),
                chance=("percent", 100 * chance),
            ),
            why=why,
            told="measured",
        )
    ]


def _against(b: Bench) -> list[Finding]:
    if b.reading.after_change or not b.reading.against:
        return []
    return [
        mind(
            said=say("The latest read speaks against what was likeliest before it."),
            why=say(
                "Reads are wrong now and then: one in twenty at seven paces, one in ten at three. "
                "That is why one read is never a verdict."
            ),
            told="measured",
        )
    ]


def _by_model(b: Bench) -> list[Finding]:
    """What the model of the shaft passing the bow says, or that it says nothing."""
    w = b.arrow.window
    if w.spine_28in is None or w.low is None or w.high is None:
        return [
            fine(
                said=say("The model draws the shape of the shot here, but tells no match."),
                why=w.why_outside("It was tuned to finger archers and bows cut near centre: "),
                told="model",
            )
        ]
    found = b.arrow.window.clean
    if found is None or found.match is None:
        return [
            fine(
                said=say(
                    "The model of the shaft passing this bow finds no spine that leaves clean; the "
                    "fit suggests {suits}.",
                    suits=("spine", w.spine_28in),
                ),
                why=say("Where nothing crosses from stiff to weak there is no match to tell."),
                told="model",
            )
        ]
    why = say(
        "Bare shafts of every spine are shot past this bow in the model; the one that leaves "
        "neither stiff nor weak is the match. The side stiffness of the string and the fingers' "
        "push are tuned to one case; the rest is the model's own."
    )
    if found.flat:
        why = why + say("Little changes about there, so the window is wider.")
    return [
        fine(
            said=say(
                "By the model {match} leaves this bow cleanest; {low} to {high} are worth a try.",
                match=("spine", found.match), low=("spine", w.low), high=("spine", w.high),
            ),
            why=why,
            told="model",
        )
    ]  # fmt: skip


def _false_weak(b: Bench) -> list[Finding]:
    edge, acts = b.arrow.window.false_below, b.arrow.build.acts_spine
    if edge is None or acts >= edge:
        return []
    return [
        mind(
            said=say(
                "Spine {acts} is so stiff, by the model below {edge}, that it bounces off the side "
                "plate and will look weak.",
                acts=("spine", acts),
                edge=("spine", edge),
            ),
            why=say("Look for scuffs and listen for a clatter before you believe a weak read."),
            told="model",
        )
    ]


def _held(b: Bench) -> list[Finding]:
    held = b.reading.held
    if not held.checked:
        return []
    why = say(
        "A verdict counts once it was called found and the same state was read again. From "
        "{enough} on, how far the model is taken to be off follows from how far its predictions lay "
        "from the reads; now it is {sd}.",
        enough=("count", ENOUGH),
        sd=("groups", b.reading.predicted_sd),
    )
    told = {"checked": ("count", float(held.checked)), "held": ("count", float(held.held))}
    return [
        fine(
            said=say(
                f"Verdicts on {_whose(b)} that later reads tried: {{checked}}; stood: {{held}}.",
                **told,
            ),
            why=why,
            told="measured",
        )
    ]


def _whose(b: Bench) -> str:
    return "this archer's rigs" if b.verdicts.checked else "this rig"


def _walked_back(b: Bench) -> list[Finding]:
    """What the walk-back says, or what it still wants."""
    told, n = b.walk_back.told, len(b.walk_back.visits)
    if not n:
        return []
    why = say(
        "One vertical line, the same aim, from near to far. A slant of the arrows is the centre "
        "shot's, a bow in the middle distances the side plate's or the plunger's. An effect counts "
        "beyond two and a half of its ± and {least}.",
        least=("spot", COUNTS_CM),
    )
    if told is None:
        return [
            mind(
                said=say(
                    "The walk-back wants three distances at least, the farthest three times the "
                    "nearest."
                ),
                why=why,
                told="practice",
            )
        ]
    if told.verdict == "straight":
        return [fine(said=told.why, why=why, told="measured")]
    to = Action(label=say("To Centre shot"), station="centre-shot")
    action = None if told.verdict == "unclear" else to
    return [mind(said=told.why, why=why, told="measured", action=action)]


def _filmed(b: Bench) -> list[Finding]:
    """What a slow-motion clip says of the shaft itself."""
    clips = [c for c in b.reading.clips.values() if c.spine is not None]
    if not clips:
        return []
    clip, seen, hz = clips[-1], clips[-1].spine, clips[-1].frequency
    assert seen is not None
    assert hz is not None
    said = say(
        "By the clip the shaft bends like spine {seen}; it is taken for {acts}.",
        seen=("spine", seen),
        acts=("spine", clip.acts),
    )
    why = say(
        "It swings {hz} times a second after the string lets go, and how fast goes by its "
        "stiffness and its weights alone. What the model predicts for this rig goes by what was "
        "seen.",
        hz=("frequency", hz),
    )
    agrees = abs(seen.value - clip.acts) <= 2 * seen.plus_minus
    return [(fine if agrees else mind)(said=said, why=why, told="measured")]


def _grouped(b: Bench) -> list[Finding]:
    """What groups at small steps of one setting say of it."""
    tuned = b.groups.tuned
    if tuned is None or tuned.read.quantity is None:
        return []
    told, name = tuned.told, tuned.read.short
    why = say(
        "Each group is taken about its own middle and brought to one distance. The tightest step is "
        "only called best where steps that are all alike would seldom make the next one so much "
        "wider: {needed} times, with so few arrows.",
        needed=f"{told.needed:.1f}",
    )
    if told.best is None:
        more = "more arrows than anybody shoots for it"
        values: dict[str, str | tuple[str, float]] = {"wider": f"{told.wider:.1f}"}
        if told.arrows_needed is not None:
            more, values["n"] = "{n} arrows at each step", ("count", told.arrows_needed)
        return [
            fine(
                said=say(
                    f"Groups at {len(told.steps)} steps of {name} cannot be told apart: the next "
                    f"is {{wider}} times as wide as the tightest. To tell so much it takes {more}.",
                    **values,
                ),
                why=why,
                told="measured",
            )
        ]
    action, paths = None, tuned.read.paths
    best = (tuned.read.quantity, told.best)
    now = tuned.read.off(b.rig)
    if len(paths) == 1 and isinstance(now, float | int) and now != told.best:
        action = Action(label=say("Set it to {best}", best=best), changes={paths[0]: told.best})
    level = fine if action is None else mind
    said = say(
        f"By groups the best {name} is {{best}}: the next is {{wider}} times as wide.",
        best=best,
        wider=f"{told.wider:.1f}",
    )
    return [level(said=said, why=why, told="measured", action=action)]


def _care(b: Bench) -> Finding:
    wood = b.rig.arrow.material in ("wood", "cane")
    return fine(
        said=say(
            "Some do not shoot wood bare: leave bare shafts out, nocks read as well."
            if wood
            else "Bare shafts fly wild where the spine is far off: near the butt first, wide backstop."
        ),
        why=say(
            "Nobody forward of the line; look over every shaft that struck at a slant, and flex "
            "carbon before it is shot again."
        ),
        told="practice",
    )
