"""Fitting: draw length, bow length and draw weight."""
