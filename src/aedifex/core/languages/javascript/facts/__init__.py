"""What is known of the language's own functions and of its libraries: tables, and what is told from them."""
