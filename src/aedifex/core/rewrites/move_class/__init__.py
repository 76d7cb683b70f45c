"""A class gets a file of its own."""
