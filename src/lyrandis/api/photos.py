"""Photos of the butt over HTTP: made plain, read in centimetres; and the simulated camera."""

from __future__ import annotations

import base64
from typing import Annotated

from fastapi import File, Query, Response, UploadFile
from pydantic import BaseModel, Field

from lyrandis.api.compute import Request
from lyrandis.api.problems import answers
from lyrandis.api.routers import router_of
from lyrandis.core.flight.photo import homography, places_cm
from lyrandis.files.photo import re_encoded
from lyrandis.instruments.camera import group_photo

router = router_of("photos")
Px = Annotated[float, Field(ge=-10_000, le=10_000, allow_inf_nan=False)]
Cm = Annotated[float, Field(ge=10, le=400, allow_inf_nan=False)]
Pixels = tuple[Px, Px]


@router.post("/compute/photo", response_class=Response, responses=answers("image/jpeg"))
def compute_photo(file: Annotated[UploadFile, File()]) -> Response:
    """A JPEG or PNG as a plain JPEG, upright and without its metadata; nothing of it is kept."""
    return Response(re_encoded(file.file), media_type="image/jpeg")


class PhotoPlacesIn(Request):
    """A butt's corners on a photo, its true size, and marks on the photo.

    corners_px : clockwise from the upper left, y downwards; zero_px : what places are told from,
    the butt's middle if left out
    """

    corners_px: list[Pixels] = Field(min_length=4, max_length=4)
    width_cm: Cm
    height_cm: Cm
    marks_px: list[Pixels] = Field([], max_length=60)
    zero_px: Pixels | None = None


class PhotoPlacesOut(BaseModel):
    """Where the marks lie [cm], + right and + up."""

    places_cm: list[list[float]]


@router.post("/compute/photo-places")
def compute_photo_places(body: PhotoPlacesIn) -> PhotoPlacesOut:
    """Places on the butt from a photo of it, by its four corners."""
    matrix = homography(body.corners_px, body.width_cm, body.height_cm)
    told = places_cm(matrix, body.marks_px)
    if body.zero_px is not None:
        told = told - places_cm(matrix, [body.zero_px])
    return PhotoPlacesOut(places_cm=told.tolist())


class PracticePhoto(BaseModel):
    """A simulated photo as a data address, and its answer sheet.

    size_cm : of the square butt; places_cm : from its middle, + right and + up; bare : which
    arrows have no feathers; marks_px : where each stands on the photo
    """

    image: str
    size_cm: float
    corners_px: list[list[float]]
    marks_px: list[list[float]]
    places_cm: list[list[float]]
    bare: list[bool]
    simulated: bool = True


@router.get("/instruments/camera/butt")
def practice_photo(again: Annotated[int, Query(ge=0, le=2**31)] = 0) -> PracticePhoto:
    """A photo of a butt to practise on, by the simulated camera; it is no measurement."""
    photo = group_photo(again)
    return PracticePhoto(
        image="data:image/jpeg;base64," + base64.b64encode(photo.jpeg).decode(),
        size_cm=80.0,
        corners_px=photo.corners_px.tolist(),
        marks_px=photo.marks_px.tolist(),
        places_cm=photo.places_cm.tolist(),
        bare=list(photo.bare),
    )
