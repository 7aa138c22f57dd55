"""Worlds that the product was not built from. Nothing here imports the product."""
