"""Strategies for settings and rigs over all that their fields allow."""

from hypothesis import HealthCheck, settings
from hypothesis import strategies as st

from claims import share
from lyrandis.core.fields import field_notes

SETTINGS = settings(
    max_examples=share(60, 15),
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large],
)


def value_of(note):
    """A strategy for one setting, over all that its field allows."""
    if note.choices:
        values = st.sampled_from(note.choices)
    elif note.path in ("string.strands", "string.twists", "arrow.fletching_count"):
        values = st.integers(int(note.low), int(note.high))
    elif note.quantity and note.low is not None:
        values = st.floats(note.low, note.high)
    elif note.path == "bow.takedown":
        values = st.booleans()
    elif note.path == "aim.distances_m":
        values = st.lists(st.floats(0, 200), min_size=1, max_size=8)
    elif note.path == "bow.measured":
        pairs = st.tuples(st.floats(0, 40), st.floats(0, 300))
        values = st.lists(pairs.map(list), max_size=5)
    else:
        return None
    return st.none() | values if note.optional else values


STRATEGIES = {path: value_of(note) for path, note in field_notes().items()}
SOME = st.dictionaries(
    st.sampled_from([path for path, value in STRATEGIES.items() if value is not None]),
    st.none(),
    max_size=6,
).flatmap(lambda paths: st.fixed_dictionaries({path: STRATEGIES[path] for path in paths}))
