"""The bow: its shape, its force–draw curve, and how it is drawn."""
