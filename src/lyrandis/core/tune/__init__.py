"""Tuning: brace height, nock point, listening, quiet."""
