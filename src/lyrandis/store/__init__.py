"""Keeping: SQLite through SQLAlchemy. Only this folder knows which database it is."""
