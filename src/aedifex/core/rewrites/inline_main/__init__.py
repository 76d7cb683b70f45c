"""A long main function becomes the main code."""
