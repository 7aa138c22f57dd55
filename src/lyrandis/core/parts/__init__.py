"""The domain types, one file a type: archer, bow, string, arrow set, and the rig they make."""

from lyrandis.core.parts.archer import (
    Anchor,
    Archer,
    DrawMethod,
    Grown,
    Hand,
    Release,
    StepUp,
)
from lyrandis.core.parts.arrow import Arrow, ShaftMaterial
from lyrandis.core.parts.base import Frozen, Name, Reading, Short, choice, measure
from lyrandis.core.parts.bow import (
    Bow,
    BraceReference,
    Form,
    LimbClass,
    LimbMaterial,
    LimbPair,
    Limbs,
    Rated,
    SidePlate,
    Tips,
)
from lyrandis.core.parts.rig import Aim, Assembly, Distance, Rig, SchoolNumbers, Use
from lyrandis.core.parts.string import String, StringBuild, StringMaterial

__all__ = [
    "Aim", "Anchor", "Archer", "Arrow", "Assembly", "Bow", "BraceReference", "Distance",
    "DrawMethod", "Form", "Frozen", "Grown", "Hand", "LimbClass", "LimbMaterial", "LimbPair",
    "Limbs", "Name", "Rated", "Reading", "Release", "Rig", "SchoolNumbers", "ShaftMaterial",
    "Short", "SidePlate", "StepUp", "String", "StringBuild", "StringMaterial", "Tips", "Use",
    "choice", "measure",
]  # fmt: skip
