"""Listeners that stand in methods of a class become methods of it."""
