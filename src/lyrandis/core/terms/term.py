"""A term of the craft: what it means here, in which unit, how it is measured, and by whom."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict

from lyrandis.core.findings import Said, say, verbatim


class TermSchool(BaseModel):
    """One way to measure or to name the same thing; `part` is its dimension in the drawings."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)

    name: str
    says: Said
    part: str | None = None


class Term(BaseModel):
    """One word of the craft.

    Parameters
    ----------
    id : the word's mark, by which drawings and links know it
    about : the chapter it stands in
    says : what it means here
    measured : how it is measured; None where nothing is
    quantity : key of units.QUANTITIES
    fields : the settings of a rig that hold it, by dotted path
    schools : where they measure or name it differently
    """

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)

    id: str
    word: str
    about: str
    says: Said
    measured: Said | None = None
    quantity: str | None = None
    fields: tuple[str, ...] = ()
    schools: tuple[TermSchool, ...] = ()


class Confusion(BaseModel):
    """Words that mislead each other, told apart in one place."""

    model_config = ConfigDict(frozen=True, json_schema_serialization_defaults_required=True)

    title: str
    says: str
    terms: tuple[str, ...]


def sentence(text: str | Said | None) -> Said | None:
    """Text of our own as a sentence; one that has values stays as it is."""
    return verbatim(text) if isinstance(text, str) else text


def term(
    id: str,
    word: str,
    about: str,
    says: str | Said,
    measured: str | Said | None = None,
    quantity: str | None = None,
    fields: tuple[str, ...] = (),
    schools: tuple[TermSchool, ...] = (),
) -> Term:
    """A term; plain text where no value stands in it."""
    told = sentence(says)
    assert told is not None
    return Term(
        id=id,
        word=word,
        about=about,
        says=told,
        measured=sentence(measured),
        quantity=quantity,
        fields=fields,
        schools=schools,
    )


def school(name: str, says: str | Said, part: str | None = None) -> TermSchool:
    """One way among several."""
    told = sentence(says)
    assert told is not None
    return TermSchool(name=name, says=told, part=part)


__all__ = ["Confusion", "Term", "TermSchool", "say", "school", "term"]
