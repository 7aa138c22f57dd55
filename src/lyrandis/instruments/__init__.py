"""Simulated bench instruments: small stand-ins for outside devices, the same by the same seed."""
