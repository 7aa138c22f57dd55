"""Side by side: two rigs, two parts, or one rig at two dates."""

from lyrandis.core.beside.beside import Beside, beside
from lyrandis.core.beside.differences import Away, Difference

__all__ = ["Away", "Beside", "Difference", "beside"]
