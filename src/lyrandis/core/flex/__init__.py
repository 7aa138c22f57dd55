"""The shaft bending past the bow, seen from above (docs/mechanics B3)."""
