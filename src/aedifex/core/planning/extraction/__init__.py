"""Lines that are worth a function, and members that are worth a class of their own.

In: a file, and what may become fields. Out: ``Piece``s for lines, ``PartDesign``s for members. Begin with ``pieces``.
"""
