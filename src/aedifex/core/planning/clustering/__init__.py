"""Which variables and functions belong together."""
