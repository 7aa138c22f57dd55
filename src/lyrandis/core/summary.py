"""A rig in a line: what a list of rigs shows of each without opening it."""

from __future__ import annotations

from pydantic import BaseModel

from lyrandis.core.history import State
from lyrandis.core.route import states


class Summary(BaseModel):
    """What a rig is called, what kind of bow and archer it is of, how many stations are due."""

    name: str
    form: str
    hand: str
    release: str
    archer: str
    due: int


def summary(state: State) -> Summary:
    """The line of a rig as it stands."""
    rig = state.rig
    return Summary(
        name=rig.name,
        form=rig.bow.form,
        hand=rig.archer.hand,
        release=rig.archer.release,
        archer=rig.archer.name,
        due=sum(s.state == "due" for s in states(state.marks, rig)),
    )
