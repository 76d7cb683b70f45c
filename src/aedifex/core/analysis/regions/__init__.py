"""Stretches of lines: what they take and give, and where a function made of them goes."""
