"""Lists with one index become a list of objects."""
