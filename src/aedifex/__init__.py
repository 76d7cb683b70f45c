"""Turn working procedural scripts into cohesive classes, one checked step at a time."""

__version__ = "0.1.0"
