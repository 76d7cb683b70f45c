"""Lines become a function."""
