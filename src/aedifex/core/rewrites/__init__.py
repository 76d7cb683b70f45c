"""Every change of a program: what a design asks for, the edits, and how the rest of the design speaks afterwards.

In: a ``Program`` and a request. Out: ``Edits``, or a ``Refusal`` from ``messages``. ``pipeline`` has the one order of
all rewrites: ``PREPARE`` before there are classes, then the classes. Each rewrite is a file, or a folder where it needs
more than one. Begin with ``pipeline`` and ``rewrite``, then a small one: ``share_field``.
"""
