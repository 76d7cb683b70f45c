"""The main code becomes a class."""
