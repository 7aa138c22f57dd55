"""At the range over HTTP: what is taken there, and what was logged there and is handed over."""

from __future__ import annotations

from fastapi import Response
from pydantic import BaseModel, Field

from lyrandis.api.context import AtDesk, Preferences, RigId, now
from lyrandis.api.reference import get_preferences
from lyrandis.api.rigs import Digest, KeepIn, as_it_is, seen
from lyrandis.api.routers import router_of
from lyrandis.core.history import MOST_ENTRIES
from lyrandis.core.units import M_PER_YD
from lyrandis.desk.handing_over import Deed, hand_over
from lyrandis.desk.shown.at_range import RangeView, range_view

router = router_of("at the range", "/api/rigs")


@router.get("/{id}/range", response_model=RangeView)
def at_range(id: RigId, desk: AtDesk, preferences: Preferences) -> Response:
    """A rig as it is taken to the range, in one answer."""
    yards = get_preferences(preferences).units.get("distance") == "yd"
    kept = desk.get(id)
    digest = desk.digests(id, [kept.seq])[kept.seq]
    return as_it_is(range_view(kept, digest, now(), M_PER_YD if yards else 1.0))


class HandOverIn(KeepIn):
    """One entry that was made at the range, by its maker's own mark.

    made_at : when the rig was made on which it was made; another one is refused
    strikes : the entry whose trial is struck out; strikes_digest : its digest, as it was told
    With neither changes, a trial nor one struck out, the station was looked at and holds.
    """

    station: str = Field(max_length=40)
    mark: str = Field(pattern="^[0-9a-f]{32}$")
    made_at: str = Field("", max_length=40)
    strikes: int | None = Field(None, ge=1, le=MOST_ENTRIES)
    strikes_digest: Digest | None = None
    about: None = None

    def named(self) -> list[tuple[int, str | None]]:
        """Every entry that the request names, with its digest."""
        struck = [] if self.strikes is None else [(self.strikes, self.strikes_digest)]
        return struck + super().named()


class HandedOver(BaseModel):
    """The number of the entry that it became, and its digest."""

    seq: int = Field(ge=0, le=MOST_ENTRIES)
    digest: Digest


@router.post("/{id}/hand-over")
def handed_over(id: RigId, body: HandOverIn, desk: AtDesk) -> HandedOver:
    """Keep an entry once, however often it is sent: an answer may be lost on its way."""
    deed = Deed(
        body.station, body.standing, body.why, body.changes, body.trial, body.strikes, body.made_at
    )
    seq = hand_over(desk, id, body.seq, body.mark, deed, lambda: seen(desk, id, body))
    return HandedOver(seq=seq, digest=desk.digests(id, [seq])[seq])
