"""The arrow: its mass and balance, and its stiffness."""
