"""Records in keyed tables become objects."""
