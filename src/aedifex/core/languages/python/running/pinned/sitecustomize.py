"""Loaded by the interpreter at start-up in a checked run only; everything else is in the package beside it."""

import os
import sys

if os.environ.get("AEDIFEX_PINNED") == "1":
    # our own modules are compiled once, not in every run
    sys.dont_write_bytecode, given = False, sys.dont_write_bytecode
    try:
        import aedifex_pinned

        aedifex_pinned.start()
        sys.dont_write_bytecode = given
    except BaseException as error:
        # a run that is not pinned must not pass for one that is
        os.write(2, f"aedifex: this run could not be pinned ({type(error).__name__}: {error})\n".encode())
        os._exit(70)
