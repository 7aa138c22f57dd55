"""The demo: a made-up club, its archers and their rigs, always the same."""
