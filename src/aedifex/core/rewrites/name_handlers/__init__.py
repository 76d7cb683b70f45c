"""Handlers written in place get names."""
