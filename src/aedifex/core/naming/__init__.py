"""Names for what is made: free ones (``identifiers``), singular and plural (``inflection``), what a function does
(``verbs``).

In: the program's own words. Out: identifiers in the style of the program. Begin with ``identifiers``.
"""
