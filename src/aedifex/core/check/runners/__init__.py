"""How a program is driven: its process, a terminal, a screen, frames, requests."""
