"""From what a rewrite wants to text."""
