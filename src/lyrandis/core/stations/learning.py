"""What is said alike wherever a turn is learnt from the one before."""

from __future__ import annotations

from lyrandis.core.findings import say

UNEXPECTED = " The last turn did not do what was expected: the new step takes that up."
ODD_WHY = say("It lies beyond three standard deviations of what any likely turn would have done.")
