"""What was read, the same for every language: files, symbols, scopes, references, calls, statements, and changes to
their text.

In: paths, or texts laid over what is on disk (``snapshot``). Out: a ``Program`` that never changes (``model``), and
``Edits`` that say what a text becomes. A language is what implements ``language.Language``; it is found through entry
points. How something is refused stands in ``refusal``, what people can put right in ``errors``. Begin with ``model``,
then ``language`` and ``edits``.
"""
