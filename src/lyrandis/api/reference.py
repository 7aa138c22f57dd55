"""What the browser needs once: units, fields, route; and reading what was typed."""

from __future__ import annotations

from functools import partial
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

import lyrandis
from lyrandis.api.context import Preferences
from lyrandis.api.routers import router_of
from lyrandis.core.arrow.spine import parse_spine
from lyrandis.core.bow.form import FORMS, default_brace_in
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import FieldNote, field_notes, part_notes
from lyrandis.core.fit.bow_length import SCHOOL_TITLES, VERDICT_WORDS
from lyrandis.core.fit.first_rig import EYE_ABOVE_NOCK_MM, RELEASE, form_start
from lyrandis.core.inspection import PLACES
from lyrandis.core.part_story import TITLES
from lyrandis.core.parts import KIND_OF, SLOT_NAMES, Bow, Form, Rig, Slot
from lyrandis.core.route import STATIONS, due_after
from lyrandis.core.route.tools import TOOLS
from lyrandis.core.terms import CONFUSIONS, TERMS, Confusion, Drawing, Term, drawings
from lyrandis.core.trials import KINDS
from lyrandis.core.tune.quiet import CHECKS
from lyrandis.core.units import QUANTITIES, UNITS, parse, parse_list

router = router_of("reference")
_KEY = "preferences"


class Health(BaseModel):
    """Whether the application answers, and which version it is."""

    status: Literal["ok"]
    version: str


@router.get("/health")
def health() -> Health:
    """Whether the application answers."""
    return Health(status="ok", version=lyrandis.__version__)


class UnitView(BaseModel):
    """A unit: `per_base` SI units make one of it."""

    id: str
    dimension: str
    per_base: float
    label: str
    decimals: int
    denominator: int
    one: str


class QuantityView(BaseModel):
    """A kind of value: the unit it is stored in and those it may be shown in."""

    id: str
    title: str
    stored: str
    choices: list[str]


class ToolNote(BaseModel):
    """A thing to have at hand, and what does as well."""

    name: str
    without: str


class StationNote(BaseModel):
    """A station of the route."""

    id: str
    title: str
    question: str
    settings: list[str]
    tools: list[ToolNote]


class FormNote(BaseModel):
    """A form of bow with its usual measures."""

    id: str
    title: str
    length_in: float
    riser_in: float
    brace_in: float
    release: str
    start: dict[str, Any]


class PlaceNote(BaseModel):
    """A place to look at on a bow."""

    id: str
    title: str
    look: str
    means: str
    stop: bool


class CheckNote(BaseModel):
    """One check of the quiet list."""

    id: str
    title: str
    do: str
    why: str
    station: str


class Catalog(BaseModel):
    """Everything that does not change while the application runs."""

    units: dict[str, UnitView]
    quantities: dict[str, QuantityView]
    fields: dict[str, FieldNote]
    stations: list[StationNote]
    forms: dict[str, FormNote]
    fresh_rig: Rig
    eye_above_nock_mm: dict[str, float]
    inspection: list[PlaceNote]
    quiet: list[CheckNote]
    trials: dict[str, str]
    parts: dict[str, PartKindNote]
    slots: dict[Slot, SlotNote]
    schools: dict[str, str]
    verdicts: dict[str, str]


class PartKindNote(BaseModel):
    """A kind of part: what one and several are called, and its settings by path."""

    one: str
    several: str
    fields: dict[str, FieldNote]


class SlotNote(BaseModel):
    """A place for a part on a rig: what stands there, and the stations due after another came."""

    name: str
    kind: str
    due: list[str]


def _form(id: Form) -> FormNote:
    shape = FORMS[id]
    return FormNote(
        id=id,
        title=shape.title,
        length_in=shape.reference_length_in,
        riser_in=shape.riser_in,
        brace_in=default_brace_in(Bow(form=id, length_in=shape.reference_length_in)),
        release=RELEASE[id],
        start=form_start(id),
    )


@router.get("/catalog")
def catalog() -> Catalog:
    """Units, fields with their ranges, the route, the forms."""
    forms: list[Form] = ["recurve", "hybrid", "longbow", "static_tip"]
    return Catalog(
        units={u.id: UnitView(**vars(u)) for u in UNITS.values()},
        quantities={
            q.id: QuantityView(id=q.id, title=q.title, stored=q.stored, choices=list(q.choices))
            for q in QUANTITIES.values()
        },
        fields=field_notes(),
        stations=[
            StationNote(
                id=s.id,
                title=s.title,
                question=s.question,
                settings=list(s.settings),
                tools=[ToolNote(name=t.name, without=t.without) for t in TOOLS[s.id]],
            )
            for s in STATIONS.values()
        ],
        forms={id: _form(id) for id in forms},
        fresh_rig=Rig(),
        eye_above_nock_mm=dict(EYE_ABOVE_NOCK_MM),
        inspection=[PlaceNote(**vars(place)) for place in PLACES.values()],
        quiet=[CheckNote(**vars(check)) for check in CHECKS],
        trials={kind: of.title for kind, of in KINDS.items()},
        parts={
            kind: PartKindNote(one=one, several=several, fields=part_notes(kind))
            for kind, (one, several) in TITLES.items()
        },
        slots={
            slot: SlotNote(
                name=name, kind=KIND_OF[slot], due=[STATIONS[s].title for s in due_after(slot)]
            )
            for slot, name in SLOT_NAMES.items()
        },
        schools=dict(SCHOOL_TITLES),
        verdicts=dict(VERDICT_WORDS),
    )


class TermsView(BaseModel):
    """The words of the craft, those that mislead each other, and the drawings that show them."""

    model_config = ConfigDict(json_schema_serialization_defaults_required=True)

    terms: list[Term]
    confusions: list[Confusion]
    drawings: list[Drawing]


@router.get("/terms")
def terms() -> TermsView:
    """The terms: what each means here, how it is measured, and where schools differ."""
    return TermsView(terms=list(TERMS), confusions=list(CONFUSIONS), drawings=list(drawings()))


class ParseIn(BaseModel):
    """Something typed, what it should be, and the unit a bare number is in."""

    model_config = ConfigDict(extra="forbid")

    text: str = Field(max_length=200)
    quantity: str = Field(max_length=40)
    unit: str | None = Field(None, max_length=20)


class ParseOut(BaseModel):
    """The value in the quantity's stored unit."""

    value: float


def _refuse_unknown(unit: str | None) -> None:
    if unit is not None and unit not in UNITS:
        raise RefusedError("unit", f"“{unit}” is not a unit known here.")


@router.post("/units/parse")
def parse_typed(body: ParseIn) -> ParseOut:
    """Read a measurement as people type it."""
    _refuse_unknown(body.unit)
    read = parse_spine if body.quantity == "spine" else partial(parse, quantity_id=body.quantity)
    return ParseOut(value=read(body.text, unit=body.unit))


class ParseListIn(ParseIn):
    """Several measurements typed one after another."""

    text: str = Field(max_length=2000)


class ParseListOut(BaseModel):
    """The values in the quantity's stored unit, in the order they were typed."""

    values: list[float]


@router.post("/units/parse-list")
def parse_listed(body: ParseListIn) -> ParseListOut:
    """Read several measurements, between spaces, commas or semicolons."""
    _refuse_unknown(body.unit)
    return ParseListOut(values=parse_list(body.text, body.quantity, body.unit))


Theme = Literal["system", "light", "dark"]
Short = Annotated[str, Field(max_length=20)]


class PreferencesView(BaseModel):
    """Display unit per quantity, and the theme."""

    model_config = ConfigDict(extra="forbid", json_schema_serialization_defaults_required=True)

    units: dict[Annotated[str, Field(max_length=40)], Short] = Field(default={}, max_length=100)
    theme: Theme = "system"


@router.get("/preferences")
def get_preferences(store: Preferences) -> PreferencesView:
    """The preferences of whoever uses this data folder."""
    return _read(store.get(_KEY))


def _read(value: Any) -> PreferencesView:
    try:
        return PreferencesView.model_validate(value or {})
    except ValidationError:  # damaged, or a newer version's: the usual units show everything
        return PreferencesView()


@router.put("/preferences")
def put_preferences(body: PreferencesView, store: Preferences) -> PreferencesView:
    """Set the preferences; units never change what is stored."""
    for quantity, unit in body.units.items():
        _refuse_unit(quantity, unit)
    store.put(_KEY, body.model_dump())
    return body


def _refuse_unit(quantity: str, unit: str | None) -> None:
    if quantity not in QUANTITIES:
        raise RefusedError(f"units.{quantity}", f"“{quantity}” is not a quantity.")
    choices = QUANTITIES[quantity].choices
    if unit is not None and unit not in choices:
        raise RefusedError(
            f"units.{quantity}",
            f"“{unit}” cannot show {quantity}; choose {', '.join(choices)}.",
        )


class PreferencesIn(BaseModel):
    """Preferences to change; a unit of null is the usual one again. What is not named stays."""

    model_config = ConfigDict(extra="forbid")

    units: dict[Annotated[str, Field(max_length=40)], Short | None] = Field({}, max_length=100)
    theme: Theme | None = None


@router.patch("/preferences")
def change_preferences(body: PreferencesIn, store: Preferences) -> PreferencesView:
    """Change some preferences; two windows that change different ones both keep theirs."""
    for quantity, unit in body.units.items():
        _refuse_unit(quantity, unit)

    def merged(value: Any) -> Any:
        kept = _read(value)
        units = kept.units | body.units
        return {
            "units": {quantity: unit for quantity, unit in units.items() if unit is not None},
            "theme": body.theme or kept.theme,
        }

    return PreferencesView.model_validate(store.change(_KEY, merged))
