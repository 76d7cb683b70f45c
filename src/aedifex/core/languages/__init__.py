"""The languages: reading, facts of their libraries, writing, running.

In: bytes. Out: a ``SourceFile``, and text in the manner of the language. Nothing above this package knows a grammar, a
keyword or a mark of a comment. Begin with ``python/__init__``, which names all parts, then docs/adding-a-language.md.
"""
