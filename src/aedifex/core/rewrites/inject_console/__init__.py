"""The console becomes a variable."""
