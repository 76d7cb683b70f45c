"""What a draft proposes: which classes, made of what, with reasons.

In: a ``Program`` and wishes. Out: a ``Design``. ``preparation`` carries out what is proposed before all classes, in the
pipeline's order (``extraction`` finds lines, ``collections`` lists and records); on what results, ``classes`` plans the
classes of a file with the groups that ``clustering`` finds. All of it works on frozen facts and gives a new plan, so
that several plans of one file can be made and compared. Begin with ``drafter``.
"""
