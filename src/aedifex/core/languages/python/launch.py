"""How Python programs are started, pinned and observed."""
