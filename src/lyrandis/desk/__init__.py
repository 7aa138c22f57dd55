"""The desk: what a user does, as one call each, between the pages and what is kept."""
