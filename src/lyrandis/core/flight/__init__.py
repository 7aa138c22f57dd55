"""The arrow in the air: where it goes and how far."""
