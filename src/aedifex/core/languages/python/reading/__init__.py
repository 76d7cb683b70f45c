"""From a text to what the core knows of a file: syntax tree, scopes, references, statements."""
