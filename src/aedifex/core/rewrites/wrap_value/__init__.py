"""A value that is handed from function to function becomes an object, and these functions its methods."""
