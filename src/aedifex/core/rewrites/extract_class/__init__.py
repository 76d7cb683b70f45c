"""A class that does several jobs is split."""
