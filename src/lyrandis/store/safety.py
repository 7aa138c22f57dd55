"""The trials on which somebody's safety rests: of these none that still counts is forgotten.

    look-overs    the latest, and every one that found something
    releases      every one                 words   every one
    holds         the latest, every one that ended in pain, and what was held at its weight after
                  it, by which the pain may be over

However much was logged since, it is a few rows of an index.
"""

from __future__ import annotations

from typing import Any

from sqlalchemy import ColumnElement, Connection, Float, Select, cast, func, select, tuple_

from lyrandis.core.fit.hold import UNDER
from lyrandis.store.tables import TrialRow

_LATEST = {"inspection": 30, "hold": 200}
_EVERY = ("release", "coach")
_AFTER_PAIN = 60  # holds at the weight that hurt
_ROW: Select[Any] = select(TrialRow.__table__)
_FOUND = TrialRow.trial.not_like('%"found":[]%')
_PAIN = TrialRow.trial.like('%"ended":"pain"%')
_WEIGHT = cast(func.json_extract(TrialRow.trial, "$.weight_lbf"), Float)


def of_safety(connection: Connection, *where: ColumnElement[bool]) -> list[Any]:
    """The rows of a rig's trials that somebody's safety rests on, each once; columns in order.

    Parameters
    ----------
    where : of which rig, and up to which entry
    """

    def ask(asked: Select[Any]) -> list[Any]:
        return list(connection.execute(asked.where(*where)))

    rows = ask(_ROW.where(TrialRow.kind.in_(_EVERY)))
    rows += ask(_ROW.where(TrialRow.kind == "inspection", _FOUND))
    for kind, most in _LATEST.items():
        latest = _ROW.where(TrialRow.kind == kind)
        rows += ask(latest.order_by(TrialRow.day.desc(), TrialRow.seq.desc()).limit(most))
    pains = ask(_ROW.where(TrialRow.kind == "hold", _PAIN).add_columns(_WEIGHT.label("lbf")))
    for pain in pains:
        rows.append(pain[:-1])
        after = tuple_(TrialRow.day, TrialRow.seq) > tuple_(pain.day, pain.seq)
        at_it = TrialRow.kind == "hold", after, pain.lbf * (1 - UNDER) <= _WEIGHT
        first = _ROW.where(*at_it).order_by(TrialRow.day, TrialRow.seq)
        rows += ask(first.limit(_AFTER_PAIN))
    return list({(row[0], row[1]): tuple(row) for row in rows}.values())
