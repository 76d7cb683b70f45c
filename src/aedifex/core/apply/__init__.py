"""A design, or one step by hand, carried out on files.

In: a design and its project (``project``). Out: files written step by step, each journalled (``journal``), read again
(``verify``) and run again. ``sequence`` runs the steps in memory, ``transactions`` makes a class whole or not at all,
``builder`` writes them, ``by_hand`` does one without a design. Begin with ``builder``.
"""
