"""Loaded by the interpreter at start-up in a checked run only; everything else is in the package beside it."""

import os

if os.environ.get("AEDIFEX_PINNED") == "1":
    import aedifex_pinned

    aedifex_pinned.start()
