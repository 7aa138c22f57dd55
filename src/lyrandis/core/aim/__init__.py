"""Aiming over the arrow: crawls, holds over, danger spaces, finger widths."""
