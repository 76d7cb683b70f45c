"""What the writers of all languages have in common: layout, and what need not come up in a language."""

from __future__ import annotations

from ..program import layout
from ..program.facets import defaults
from ..program.facets.bases import Bases


class PlainText:
    """Text as lines and words, whatever the language; each page of ``program.facets.text`` says what is asked."""

    bases: Bases | None = None

    words = staticmethod(layout.words)
    class_name = staticmethod(layout.class_name)
    newline = staticmethod(layout.newline)
    with_newlines = staticmethod(layout.with_newlines)
    indented = staticmethod(layout.indented)
    shifted = staticmethod(layout.shifted)
    line_start = staticmethod(layout.line_start)
    line_end = staticmethod(layout.line_end)
    blank_before = staticmethod(layout.blank_before)
    blank_after = staticmethod(layout.blank_after)
    head = staticmethod(defaults.head)
    import_again = staticmethod(defaults.import_again)
    import_list = staticmethod(defaults.import_list)
    import_names = staticmethod(defaults.import_names)
    merged_imports = staticmethod(defaults.merged_imports)
    moved = staticmethod(defaults.moved)
    offer = staticmethod(defaults.offer)
    moved_out = staticmethod(defaults.moved_out)
    opened = staticmethod(defaults.opened)
    renamed_elsewhere = staticmethod(defaults.renamed_elsewhere)
    appended = staticmethod(defaults.appended)
    sized = staticmethod(defaults.sized)
    placed = staticmethod(defaults.placed)
    filled = staticmethod(defaults.filled)
    equality = staticmethod(defaults.equality)
    needless_receivers = staticmethod(defaults.needless_receivers)
    has_members = staticmethod(defaults.has_members)
    typed = staticmethod(defaults.typed)
