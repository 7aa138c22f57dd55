"""A rig on the bench: a bench a subject, every number once and only when asked for."""

from lyrandis.core.bench.bench import Bench

__all__ = ["Bench"]
