"""What a drawing of the terms is made of: shapes in one plane to one scale, each for its word."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict

from lyrandis.core.findings import Value

Points = tuple[tuple[float, float], ...]


class Shape(BaseModel):
    """One part of a drawing, in the drawing's unit, X to the right, Y up.

    Parameters
    ----------
    term : the word that it is drawn for; None for what only stands beside it
    part : its own mark among several of the same word (a school's dimension)
    kind : an area, a line, or a dimension between two points
    style : how it is inked
    smooth : whether it runs as a curve through its points
    value : what a dimension comes to
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)

    term: str | None = None
    part: str | None = None
    kind: Literal["area", "line", "span"] = "area"
    style: Literal["ink", "wood", "paper", "thread", "wash", "dashed"] = "ink"
    points: Points
    smooth: bool = False
    value: Value | None = None


class Drawing(BaseModel):
    """A picture of some terms: the chapter it stands before, its shapes, and the window on them."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)

    id: str
    about: str
    title: str
    says: str
    unit: Literal["in", "mm"]
    left: float
    right: float
    bottom: float
    top: float
    shapes: tuple[Shape, ...]


def area(
    term: str | None,
    points: Points,
    style: str = "ink",
    part: str | None = None,
    smooth: bool = False,
) -> Shape:
    """A closed outline."""
    return Shape.model_validate(
        {
            "term": term,
            "part": part,
            "kind": "area",
            "style": style,
            "points": points,
            "smooth": smooth,
        }
    )


def line(term: str | None, points: Points, style: str = "ink", part: str | None = None) -> Shape:
    """An open line."""
    return Shape.model_validate(
        {"term": term, "part": part, "kind": "line", "style": style, "points": points}
    )


def box(term: str | None, x: tuple[float, float], y: tuple[float, float],
        style: str = "ink") -> Shape:  # fmt: skip
    """A rectangle between two X and two Y."""
    (a, b), (c, d) = x, y
    return area(term, ((a, c), (b, c), (b, d), (a, d)), style)


def span(
    term: str, start: tuple[float, float], end: tuple[float, float], part: str | None = None,
    value: tuple[str, float] | None = None,
) -> Shape:  # fmt: skip
    """A dimension line; `value` is its quantity and what it comes to."""
    told = None if value is None else Value(quantity=value[0], value=value[1])
    return Shape(term=term, part=part, kind="span", points=(start, end), value=told)
