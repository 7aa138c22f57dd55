"""Lyrandis: setting up a bow that is shot without a sight."""

__version__ = "0.1.0"
