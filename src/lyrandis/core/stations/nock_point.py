"""Nock point: where to start, what the reads come to, the next height; nock fit and grip."""

from __future__ import annotations

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.findings import Action, Finding, Said, fine, joined, mind, say
from lyrandis.core.stations.base import Answer
from lyrandis.core.stations.nocking import grip, nock_fit
from lyrandis.core.stations.tiller import uneven
from lyrandis.core.tune.nock_point import START_MM
from lyrandis.core.tune.nock_reads import MOST_ARROWS, NEAR_MM, TRY_ARROWS, NockFound
from lyrandis.core.words import word

_READ_MM = 0.5  # a bow square is read so
_CRAWL_RAISES_MM = (2.8, 4.6)  # A4: .11 to .18 in for .9 in of crawl
_RAISED_BY_MM = 23.0
_BEYOND_MM = 15.0  # a crawl that is larger by so much is another one for the nock point
_LIKELY_FALSE = 0.15  # of a read of high: own threshold for saying so beside the next height


def note(b: Bench) -> Said:
    """Its height, and whether the reads found it."""
    n = b.nock.start
    after = " assumed" if n.assumed else ""
    found = b.nock.found
    if found is not None and found.end == "found":
        after = ", read" if abs(n.height_mm - found.best_mm) <= NEAR_MM else ", reads say otherwise"
    return say("{height}" + after, height=("nock_height", n.height_mm))


def tell(b: Bench) -> Answer:
    """The nock point's height above square."""
    n, found = b.nock.start, b.nock.found
    if found is None:
        release = word("archer.release", b.rig.archer.release)
        answer = say(
            f"The underside of the arrow nock sits {{height}} above square, "
            f"{'an ordinary start' if n.assumed else 'as you set it'}; {release} starts between "
            "{low} and {high}.",
            height=("nock_height", n.height_mm),
            low=("nock_height", n.low_mm),
            high=("nock_height", n.high_mm),
        )
    else:
        answer = say(
            "The underside of the arrow nock sits {height} above square; the reads put the height "
            "at which it leaves level between {low} and {high}.",
            height=("nock_height", n.height_mm),
            low=("nock_height", found.low_mm),
            high=("nock_height", found.high_mm),
        )
    return Answer(
        answer,
        [
            *_next(b),
            *_range(b),
            *_crawls(b),
            *_pocket(b),
            *uneven(b),
            _false_high(b),
            *nock_fit(b),
            grip(b),
        ],
    )


def _height(label: str, height_mm: float) -> Action:
    return Action(
        label=say(f"{label} {{height}}", height=("nock_height", height_mm)),
        changes={"nock_height_mm": round(height_mm, 2)},
    )


def _next(b: Bench) -> list[Finding]:
    """What the reads come to: the next height with why, or that it is found."""
    found = b.nock.found
    if found is None:
        return []
    why = say(
        "A table of what each read speaks for: how the tail stood, how much a release blurs it, "
        "that one read in fourteen or so is misread, and that a nock more than {near} too low "
        "bounces and reads high one time in three. Reads at several heights teach more than many "
        "at one.",
        near=("small", NEAR_MM),
    )
    if found.end == "found":
        return [_settled(b, found, why)]
    if found.next_mm is None:
        return [
            mind(
                said=say(
                    f"After {MOST_ARROWS} arrows the reads do not agree on a height; likeliest is "
                    "{best}. Shoot another day, or look for what changes from shot to shot.",
                    best=("nock_height", found.best_mm),
                ),
                why=why,
                told="measured",
                action=_there(b, found.best_mm, "Set"),
            )
        ]
    here = b.nock.start.height_mm
    if abs(found.next_mm - here) < _READ_MM:
        return [
            mind(
                said=say(
                    f"Shoot {TRY_ARROWS} more at this height, {{at}}: it tells the most now.",
                    at=("nock_height", found.next_mm),
                ),
                why=why,
                told="model",
            )
        ]
    up = found.next_mm > here
    false = (
        " The tail stood high, but the nock may be too low: go up clearly until it turns."
        if up and found.false_high >= _LIKELY_FALSE
        else ""
    )
    return [
        mind(
            said=say(
                f"Next, {'raise' if up else 'lower'} it to {{next}} and shoot {TRY_ARROWS}: that "
                f"tells the most.{false}",
                next=("nock_height", found.next_mm),
            ),
            why=why,
            told="model",
            action=_height("Try", found.next_mm),
        )
    ]


def _there(b: Bench, height_mm: float, label: str) -> Action | None:
    here = b.nock.start.height_mm
    return None if abs(here - height_mm) < _READ_MM else _height(label, height_mm)


def _settled(b: Bench, found: NockFound, why: Said) -> Finding:
    here = b.nock.start.height_mm
    if abs(here - found.best_mm) <= NEAR_MM:
        return fine(
            said=say(
                "Found, as far as reads can tell: {best}, nine times in ten within {near}. Tie it there.",
                best=("nock_height", found.best_mm),
                near=("small", NEAR_MM),
            ),
            why=why,
            told="measured",
            action=_there(b, found.best_mm, "Set"),
        )
    return mind(
        said=say(
            "The reads found it at {best}, and it stands at {here}.",
            best=("nock_height", found.best_mm),
            here=("nock_height", here),
        ),
        why=why,
        told="measured",
        action=_height("Set", found.best_mm),
    )


def _range(b: Bench) -> list[Finding]:
    n = b.nock.start
    if b.nock.found is not None:
        return []
    (low, high), (_, thumb) = START_MM["split"], START_MM["thumb"]
    why = say(
        "Ordinary starts: {low} to {high} split finger, a little more three under, about one arrow "
        "diameter more when walking the string, up to {thumb} for the thumb. Your reads decide.",
        low=("nock_height", low),
        high=("nock_height", high),
        thumb=("nock_height", thumb),
    )
    if n.assumed:
        level = b.rig.nocking.school == "by_eye"
        return [
            mind(
                said=say(
                    "Nothing is set yet. Put the arrow level by eye, shoot, watch, shift, and mark "
                    "where it ends: clear range, safe backstop."
                )
                if level
                else say(
                    "Nothing is set yet. Start at {start} and shoot: clear range, safe backstop.",
                    start=("nock_height", n.start_mm),
                ),
                why=why,
                told="practice",
                action=_height("Start level," if level else "Start at", n.begin_mm),
            )
        ]
    if n.low_mm - _READ_MM <= n.height_mm <= n.high_mm + _READ_MM:
        return [fine(said=say("It lies within the ordinary starts."), why=why, told="practice")]
    return [
        mind(
            said=say(
                f"It is {'lower' if n.height_mm < n.low_mm else 'higher'} than ordinary starts. "
                "Believe it only if the arrow tells you so: log what the tails show."
            ),
            why=why,
            told="practice",
            action=_height("Try", n.start_mm),
        )
    ]


def _crawls(b: Bench) -> list[Finding]:
    """What walking the string asks, and whether the largest crawl was looked at."""
    if b.rig.aims_by == "gaps":
        return []
    why = say(
        "A crawl unbalances the limbs. Two limbs in the model raise it by {low} to {high} "
        "for {crawl} of crawl; real crawls need more. A direction, not a number to set.",
        crawl=("crawl", _RAISED_BY_MM),
        low=("small", _CRAWL_RAISES_MM[0]),
        high=("small", _CRAWL_RAISES_MM[1]),
    )
    read, largest = b.nock.read_crawls_mm, _largest_crawl(b)
    if not read or largest is None:
        said = say(
            "Read it with the crawls you really use: the farther the hand goes down, the "
            "higher it wants to be."
        )
        return [fine(said=said, why=why, told="model")]
    low, high = min(read), max(read)
    tuned = say(
        "It was read with crawls of {low} to {high}", low=("crawl", low), high=("crawl", high)
    )
    if largest <= high + _BEYOND_MM:
        return [fine(said=tuned.ended(": the crawls of your chart."), why=why, told="measured")]
    said = joined(
        tuned.ended("; "),
        say("your chart goes to {largest}: read the tails with that too.",
            largest=("crawl", largest)),
    )  # fmt: skip
    return [mind(said=said, why=why, told="measured")]


def _largest_crawl(b: Bench) -> float | None:
    """The largest crawl of the chart [mm]; None where there is no chart."""
    try:
        return float(b.aim.checked.max())
    except RefusedError:
        return None


def _pocket(b: Bench) -> list[Finding]:
    """What weight in one pocket asks of the start."""
    held = b.rig.weights
    if bool(held.upper_pocket_g) == bool(held.lower_pocket_g):
        return []
    which, way = ("lower", "higher") if held.lower_pocket_g else ("upper", "lower")
    return [
        fine(
            said=say(f"Weight hangs in the {which} pocket: begin on the {way} side."),
            why=say("Practice's word, by how much nobody can say: let the reads decide."),
            told="practice",
        )
    ]


def _false_high(b: Bench) -> Finding:
    said = say("A tail that kicks high may really sit too low: the shaft bounces off the rest.")
    why = say(
        "Raise it clearly until the read turns, then come down. Only up and down belongs to the "
        "nock point; side to side is spine."
    )
    told = fine if b.nock.reads else mind
    return told(said=said, why=why, told="practice")
