"""Nock point: where to start, and what to watch."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.findings import Action, Finding, Said, fine, mind, say
from lyrandis.core.stations.base import Answer
from lyrandis.core.tune.nock_point import START_MM
from lyrandis.core.words import word

_READ_MM = 0.5  # a bow square is read so
_CRAWL_RAISES_MM = (2.8, 4.6)  # A4: .11 to .18 in for .9 in of crawl
_RAISED_BY_MM = 23.0


def note(b: Bench) -> Said:
    """Its height."""
    n = b.nock
    assumed = " assumed" if n.assumed else ""
    return say("{height}" + assumed, height=("nock_height", n.height_mm))


def tell(b: Bench) -> Answer:
    """The nock point's height above square."""
    n = b.nock
    release = word("archer.release", b.rig.archer.release)
    low, high = ("nock_height", n.low_mm), ("nock_height", n.high_mm)
    answer = say(
        f"The underside of the arrow nock sits {{height}} above square, "
        f"{'an ordinary start' if n.assumed else 'as you set it'}; {release} starts between "
        "{low} and {high}.",
        height=("nock_height", n.height_mm),
        low=low,
        high=high,
    )
    return Answer(answer, [_range(b), *_crawls(b), _false_high(), _grip()])


def _range(b: Bench) -> Finding:
    n = b.nock
    (low, high), (_, thumb) = START_MM["split"], START_MM["thumb"]
    why = say(
        "Ordinary starts: {low} to {high} split finger, a little more three under, about one arrow "
        "diameter more when walking the string, up to {thumb} for the thumb. Your reads decide.",
        low=("nock_height", low),
        high=("nock_height", high),
        thumb=("nock_height", thumb),
    )
    if n.assumed:
        return mind(
            said=say(
                "Nothing is set yet. Start at {start} and shoot three: clear range, safe backstop.",
                start=("nock_height", n.start_mm),
            ),
            why=why,
            told="practice",
            action=Action(
                label=say("Start at {start}", start=("nock_height", n.start_mm)),
                changes={"nock_height_mm": round(n.start_mm, 2)},
            ),
        )
    if n.low_mm - _READ_MM <= n.height_mm <= n.high_mm + _READ_MM:
        return fine(said=say("It lies within the ordinary starts."), why=why, told="practice")
    return mind(
        said=say(
            f"It is {'lower' if n.height_mm < n.low_mm else 'higher'} than ordinary starts. Believe it "
            "only if the arrow tells you so."
        ),
        why=why,
        told="practice",
        action=Action(
            label=say("Try {start}", start=("nock_height", n.start_mm)),
            changes={"nock_height_mm": round(n.start_mm, 2)},
        ),
    )


def _crawls(b: Bench) -> list[Finding]:
    if b.rig.archer.release != "three_under":
        return []
    return [
        fine(
            said=say(
                "Set it with the crawls you really use: the farther the hand goes down, the higher it wants to be."
            ),
            why=say(
                "A crawl unbalances the limbs. Two limbs in the model raise it by {low} to {high} for "
                "{crawl} of crawl; real crawls need more. A direction, not a number to set.",
                crawl=("crawl", _RAISED_BY_MM),
                low=("small", _CRAWL_RAISES_MM[0]),
                high=("small", _CRAWL_RAISES_MM[1]),
            ),
            told="model",
        )
    ]


def _false_high() -> Finding:
    return mind(
        said=say("A nock that kicks high may really be too low: the shaft bounces off the rest."),
        why=say(
            "Raise it clearly until the read turns, then come down. Only up and down belongs to the nock point; side to side is spine."
        ),
        told="practice",
    )


def _grip() -> Finding:
    return fine(
        said=say("Grip the bow at the same height each time."),
        why=say(
            "A hand that sits higher is a nock point lower by as much. The arrow nock should hold its own weight on the string and leave with a tap."
        ),
        told="practice",
    )
