"""Facts and figures about a program; pure functions, each with its place in the source.

In: a ``Program``. Out: who touches what (``effects``), what a variable is to the program (``variable_kinds``), numbered
copies (``families``), what forbids to move a name (``hazards``), where an object can be constructed (``construction``),
stretches of lines and what they would take and give as a function (``regions``), and all of it as data (``report``).
Begin with ``effects``, then ``hazards``.
"""
