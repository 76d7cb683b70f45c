"""What the watched variables hold at each moment, wherever they live by now: a variable, or the field of an object.

``plan["watch"]`` lists them: name, file, function ("" for a variable of the file), and once moved the object's name,
its class and the names that the member may have. A change is noted as: state, name, moment, value. A variable that
cannot be seen at a moment (its function does not run, its object is not made) is noted as "?", one that is not set as
"-".
"""

import os
import sys

from . import classes, log, turns, values

files = set()  # absolute paths of the program's own files
UNSEEN, UNSET = "?", "-"
MANY = 3000  # moments that are noted one by one; after those every tenth

_watched = []
_last = {}
_over = False
_moments = 0


class Watched:
    def __init__(self, row):
        self.name, self.file, self.function = row["name"], os.path.abspath(row["file"]), row.get("function", "")
        self.object, self.kind, self.members = row.get("object", ""), row.get("class", ""), row.get("members", ())
        self.kept = (row.get("list", ""), row.get("index", 0))
        self.variable = row["variable"]

    def find(self, place):
        """(its value, whether it is there): that of the object, as soon as it has it; the variable's name may mean
        something else then."""
        owner = place.object(self.object, self.kind, self.kept) if self.object else None
        held = getattr(owner, "__dict__", {})
        for member in self.members:
            if member in held:
                return held[member], True
        if self.function:
            names = place.locals_of(self.file, self.function)
        else:
            names = place.globals_of(self.file)
        if names is not None and self.variable in names:
            return names[self.variable], True
        return (UNSEEN if owner is None else UNSET), False


def own_frames():
    """The frames of the program's own code, the innermost first."""
    found, frame = [], sys._getframe()
    while frame is not None:
        if frame.f_code.co_filename in files:
            found.append(frame)
        frame = frame.f_back
    return found


class Place:
    """Where things stand at one moment."""

    def __init__(self):
        self.frames = None
        self.objects = {}

    def stack(self):
        if self.frames is None:
            self.frames = own_frames()
        return self.frames

    def globals_of(self, file):
        module = module_of(file)
        return None if module is None else module.__dict__

    def locals_of(self, file, function):
        for frame in self.stack():
            if frame.f_code.co_name == function and frame.f_code.co_filename == file:
                return frame.f_locals
        return None

    def object(self, name, kind, kept=("", 0)):
        if (name, kind) not in self.objects:
            self.objects[name, kind] = self.look_for(name, kind, kept)
        return self.objects[name, kind]

    def look_for(self, name, kind, kept):
        made = classes.made.get(kind, ())
        if len(made) <= 1:
            return made[0] if made else None
        places = [m.__dict__ for m in map(module_of, files) if m is not None]
        places += [vars(app) for found in classes.made.values() for app in found[:1] if hasattr(app, "__dict__")]
        for names in [*places, *(f.f_locals for f in self.stack())]:
            for spelled in (name, "_" + name):
                value = names.get(spelled)
                if value is not None and any(value is m for m in made):
                    classes.named[name, kind] = value
                    return value
            for spelled in (kept[0], "_" + kept[0]) if kept[0] else ():
                value = names.get(spelled)
                if isinstance(value, list) and len(value) > kept[1] and any(value[kept[1]] is m for m in made):
                    return value[kept[1]]
        return classes.named.get((name, kind))


_script = ""  # the file that was started
_modules = {}
_missed = {}  # file → number of modules when it was not among them


def module_of(file):
    found = _modules.get(file)
    if found is None and _missed.get(file) != len(sys.modules):
        _missed[file] = len(sys.modules)
        for name, module in list(sys.modules.items()):
            if file_of(name, module) == file:
                found = _modules[file] = module
                break
    return found


def file_of(name, module):
    """The file of a module; the interpreter takes its name from the main module once that has run."""
    return getattr(module, "__file__", None) or (_script if name == "__main__" else "")


def watch(plan):
    global _script
    _script = os.path.abspath(sys.argv[0]) if getattr(sys, "argv", None) and sys.argv[0] else ""
    files.update(os.path.abspath(path) for path in plan.get("files", ()))
    _watched.extend(Watched(row) for row in plan.get("watch", ()))
    classes.follow({w.kind for w in _watched if w.kind})
    import atexit

    atexit.register(finish)


def moment(label):
    global _moments
    _moments += 1
    if not _watched or (_moments > MANY and _moments % 10):
        return
    place = Place()
    for watched in _watched:
        value, known = watched.find(place)
        text = values.tell(value) if known else value
        if _last.get(watched.name) != text:
            _last[watched.name] = text
            log.note("state", watched.name, label, text)


def at_end():
    global _over
    if not _over:
        _over = True
        moment("the end")
        log.note("turns", turns.now - 1)
        # from here on the program's objects live and die as they do without us
        classes.release()


def finish():
    at_end()
    log.flush()
