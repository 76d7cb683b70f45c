"""The design file: the classes to come, as people edit them.

One dataclass a table (``tables``); reading, writing, mistakes with their lines and the JSON Schema follow from it
(``schema``, ``toml``). In: TOML. Out: a ``Design``. A new table is one dataclass. Begin with ``tables``.
"""
