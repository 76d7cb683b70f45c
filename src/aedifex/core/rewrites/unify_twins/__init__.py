"""Near-twins become the same but for a number."""
