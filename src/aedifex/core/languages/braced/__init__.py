"""What languages have in common that write blocks in braces, and classes."""
