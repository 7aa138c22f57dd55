"""Tuning: string, brace, nock point, aiming."""
