"""A small tram line."""
