"""The arrow: its mass and balance, its stiffness, and the shot."""
