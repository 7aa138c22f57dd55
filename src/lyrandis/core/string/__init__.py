"""The string: its measures, what turns do, and how a new one settles."""
