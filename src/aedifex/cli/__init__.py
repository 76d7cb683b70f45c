"""The command, one file for each sub-command."""
