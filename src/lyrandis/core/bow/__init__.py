"""The bow: its shape, its force–draw curve, and the shot."""
