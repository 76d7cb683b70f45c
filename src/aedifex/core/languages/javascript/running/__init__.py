"""How programs are started, watched, compiled and tested."""
