"""Functions are registered by calls."""
