"""Values and objects as source text that makes them again."""

import math

kinds = set()  # the classes that tests are made for
streams = set()  # the class through which the program asks and tells
STREAM = "\0"  # stands for its object among the arguments of another
born = {}  # id of an object → (arguments it was made with, its fields then, the object itself)
LONG = 1500  # characters of one value
PLAIN = (int, bool, str, bytes, type(None), complex)


def stem(name):
    found = "".join("_" + c.lower() if c.isupper() else c for c in name).strip("_")
    return found.rsplit("_", 1)[-1] if len(found) > 20 else found


def code(value, depth=0):
    """Source text of a value; None if there is none."""
    kind = type(value)
    if kind is float:
        return repr(value) if math.isfinite(value) else f"float({str(value)!r})"
    if kind in PLAIN:
        return repr(value) if len(repr(value)) < LONG else None
    if depth > 6:
        return None
    if kind in (list, tuple, set, frozenset):
        items = [code(v, depth + 1) for v in (value if kind in (list, tuple) else sorted(value, key=repr))]
        if None in items:
            return None
        inside = ", ".join(items)
        if kind is tuple:
            return f"({inside},)" if len(items) == 1 else f"({inside})"
        text = (
            f"[{inside}]"
            if kind is list
            else f"{{{inside}}}"
            if items and kind is set
            else f"{kind.__name__}([{inside}])"
        )
        return text if len(text) < LONG else None
    if kind is dict:
        rows = [(code(k, depth + 1), code(v, depth + 1)) for k, v in value.items()]
        if any(None in row for row in rows):
            return None
        text = "{" + ", ".join(f"{k}: {v}" for k, v in rows) + "}"
        return text if len(text) < LONG else None
    if (kind.__module__ or "").startswith("pygame") and kind.__name__ in ("Rect", "Vector2", "Color"):
        return f"pygame.{kind.__name__}({', '.join(repr(v) for v in value)})"
    return None


def flat(owner, before="", depth=0):
    """Path of each field, also of objects that it owns → its source text, None for what has none."""
    found = {}
    for name, value in list(getattr(owner, "__dict__", {}).items()):
        if type(value) in streams:
            continue
        if type(value) in kinds and depth < 3:
            found.update(flat(value, f"{before}{name}.", depth + 1))
        else:
            found[before + name] = code(value)
    return found


def arguments(args, named):
    """Source text of arguments made of plain values, and of what the program asks and tells through; None if one is
    neither."""
    return joined(args, named, lambda value: STREAM if type(value) in streams else code(value))


def joined(args, named, written):
    """Arguments as they stand in a call, each as ``written`` gives it; None if it has none for one of them."""
    given = [("", written(a)) for a in args] + [(f"{k}=", written(a)) for k, a in named.items()]
    return None if any(text is None for _, text in given) else ", ".join(name + text for name, text in given)


class Setting:
    """The lines that make what a call needs."""

    def __init__(self):
        self.lines, self.names, self.surfaces = [], {}, {}
        self.held = []  # (name, object) of what a call may change
        self.stream = ""  # the name of what it asks and tells through

    def object(self, owner, name):
        """Make an object as in the run, with its fields as they are now; its name, or "" if that cannot be told."""
        if id(owner) in self.names:
            return self.names[id(owner)]
        known = born.get(id(owner))
        if known is None or known[2] is not owner or known[0] is None:
            return ""
        given = known[0].replace(STREAM, self.console()) if STREAM in known[0] else known[0]
        name = self.free(name)
        self.lines.append(f"{name} = {type(owner).__name__}({given})")
        now = flat(owner)
        for path, text in now.items():
            if text != known[1].get(path):
                if text is None:
                    return ""
                self.lines.append(f"{name}.{path} = {text}")
        self.names[id(owner)] = name
        return name

    def console(self):
        """What a call asks and tells through, made so that the test types and reads; ``typed`` puts in what was
        typed."""
        if not self.stream:
            kind = next(iter(streams))
            self.stream = stem(kind.__name__)
            self.lines += ["told = io.StringIO()", f"{self.stream} = {kind.__name__}(io.StringIO({STREAM}), told)"]
        return self.stream

    def typed(self, answers):
        text = repr("".join(f"{a}\n" for a in answers)) if answers else ""
        return [line.replace(STREAM, text) for line in self.lines]

    def free(self, name):
        taken = {"told", self.stream} | set(self.names.values()) | {n for n, _ in self.held} | set(self.surfaces)
        return name if name not in taken else next(f"{name}{n}" for n in range(2, 99) if f"{name}{n}" not in taken)

    def arguments(self, args, named):
        return joined(args, named, self.argument)

    def argument(self, value):
        kind = type(value)
        if kind in streams:
            return self.console()
        if kind in kinds:
            return self.object(value, stem(kind.__name__)) or None
        if kind.__name__ == "Surface" and kind.__module__.startswith("pygame"):
            name = self.free("surface")
            self.lines.append(f"{name} = pygame.Surface({value.get_size()!r})")
            self.surfaces[name] = value
            return name
        text = code(value)
        if text is not None and kind in (list, dict, set):
            name = self.free("given")
            self.lines.append(f"{name} = {text}")
            self.held.append((name, value))
            return name
        return text

    def after(self):
        """What the call left in the lists, tables and sets that it was given."""
        return {name: code(value) for name, value in self.held}
