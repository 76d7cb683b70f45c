"""What the commands show: tables, text and figures."""
