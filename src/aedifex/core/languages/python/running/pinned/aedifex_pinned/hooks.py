"""Does something to a module as soon as the program has imported it, not before: importing it costs time."""

import sys

AFTER = {}  # name of a module → what is done to it


class Finder:
    def find_spec(self, name, path=None, target=None):
        if name not in AFTER:
            return None
        for finder in sys.meta_path:
            if finder is self or not hasattr(finder, "find_spec"):
                continue
            spec = finder.find_spec(name, path, target)
            if spec is not None:
                break
        else:
            return None
        if spec.loader is None or not hasattr(spec.loader, "exec_module"):
            return spec
        run = spec.loader.exec_module

        def exec_module(module):
            run(module)
            AFTER[name](module)

        spec.loader.exec_module = exec_module
        return spec


def install():
    """Modules that the interpreter loaded by itself are treated at once."""
    for name in list(AFTER):
        if name in sys.modules:
            AFTER[name](sys.modules[name])
    sys.meta_path.insert(0, Finder())
