"""Whether a program does what it did: recorded runs, compared.

In: scenarios and a scratch copy of the program (``run_environment``). Out: differences, each with its place
(``compare``). ``runners`` drive a program by lines, on a terminal, by frames and events, or by requests; ``sandbox``
bounds them. It knows nothing of designs or steps. Begin with ``check``, then ``runners/process``.
"""
