"""Tk windows: the main loop runs on simulated time, events come by turn, and what the controls display is noted.

A turn is one round of the main loop: the next timer, the events that are due, then everything that is pending. What is
shown is noted as text (each control's kind, place, texts and values, a canvas item by item), so fonts do not matter.
"""

from . import clock, log, turns

STATES = ("text", "label", "state", "background", "foreground", "relief", "value", "image")
ROUNDS = 400  # of a main loop that nothing ends


class Loop:
    def __init__(self, tkinter):
        self.tkinter = tkinter
        self.timers = []  # (due, number, function, arguments)
        self.number = 0
        self.quit = False
        self.last = {}

    def after(self, widget, milliseconds, function=None, args=()):
        self.number += 1
        name = f"after#{self.number}"
        when = clock.peek() + (0 if milliseconds == "idle" else float(milliseconds) / 1000)
        self.timers.append((when, self.number, name, function, args))
        return name

    def cancel(self, name):
        self.timers = [t for t in self.timers if t[2] != name]

    def fire(self):
        if not self.timers:
            return False
        self.timers.sort(key=lambda t: t[:2])
        when, _, _, function, args = self.timers.pop(0)
        clock.pass_time(max(0.0, when - clock.peek()))
        function(*args)
        return True

    def run(self, root):
        self.quit = False
        rounds = 0
        while not self.quit and alive(root):
            self.settle(root)
            fired = self.fire() if rounds else False
            rounds += 1
            self.settle(root)
            for event in turns.due() if alive(root) else ():
                self.give(root, event)
                if self.quit or not alive(root):
                    return
            self.settle(root)
            if alive(root):
                self.note(root)
            turns.over("frame")
            if not fired and not self.timers and not turns.later():
                turns.end("ended when no more events came")
            if rounds > ROUNDS and not turns.later():
                turns.end(f"ended after {ROUNDS} rounds of its main loop")

    def settle(self, root):
        """Let everything that is pending happen, as the real loop does."""
        if alive(root):
            root.tk.call("update")

    def note(self, root):
        rows = []
        for top in tops(root):
            self.show(top, rows, 0)
        log.note("shot", f"window {turns.now}", "\n".join(rows))

    def show(self, widget, rows, depth):
        kind = widget.winfo_class()
        parts = [kind, f"{widget.winfo_width()}x{widget.winfo_height()}"] if depth == 0 else [kind]
        if depth == 0:
            parts.append(repr(widget.wm_title()))
        for option in STATES:
            try:
                row = widget.configure(option)
            except self.tkinter.TclError:
                continue
            if len(row) == 5 and str(row[4]) != str(row[3]):
                parts.append(f"{option}={str(row[4])!r}")
        parts += contents(widget, kind)
        rows.append("  " * depth + " ".join(parts))
        for child in sorted(widget.winfo_children(), key=lambda w: (w.winfo_y(), w.winfo_x())):
            if child.winfo_manager() in ("pack", "grid", "place") and child.winfo_toplevel() != child:
                self.show(child, rows, depth + 1)

    def give(self, root, event):
        if "quit" in event:
            handler = root.protocol("WM_DELETE_WINDOW")
            root.tk.eval(handler) if handler else root.destroy()
        elif "control" in event:
            self.control(root, event)
        elif "key" in event or "text" in event:
            target = root.focus_get() or root
            target.focus_force()
            root.tk.call("update")
            for name in [event["key"]] if "key" in event else event["text"]:
                spelled = KEYS.get(name.upper(), name)
                if event.get("press", True):
                    target.event_generate(f"<KeyPress-{spelled}>")
                if not event.get("press", False) and alive(root):
                    target.event_generate(f"<KeyRelease-{spelled}>")
        else:
            x, y = event.get("click") or event["move"]
            target = root.winfo_containing(root.winfo_rootx() + x, root.winfo_rooty() + y) or root
            x, y = x + root.winfo_rootx() - target.winfo_rootx(), y + root.winfo_rooty() - target.winfo_rooty()
            target.event_generate("<Motion>", x=x, y=y)
            if "click" in event:
                button = event.get("button", 1)
                if event.get("press", True):
                    target.event_generate(f"<ButtonPress-{button}>", x=x, y=y)
                if not event.get("press", False) and alive(root):
                    target.event_generate(f"<ButtonRelease-{button}>", x=x, y=y)

    def control(self, root, event):
        """Use a control by what it shows, by its name, or by its place among those of its kind (Entry 2)."""
        wanted = event["control"]
        found = [w for top in tops(root) for w in below(top) if wanted in names(w, self.tkinter)]
        if not found:
            kind, _, number = wanted.rpartition(" ")
            same = [w for top in tops(root) for w in below(top) if w.winfo_class() in (kind, "T" + kind)]
            found = same[int(number) - 1 : int(number)] if number.isdigit() else []
        if not found:
            log.note(
                "trouble",
                f"the scenario uses the control '{wanted}', which the window does not show at turn {turns.now}",
            )
            turns.end("")
        widget = found[0]
        if "value" in event:
            fill(widget, event["value"])
        elif hasattr(widget, "invoke"):
            widget.invoke()
        else:
            widget.event_generate("<ButtonPress-1>", x=3, y=3)
            widget.event_generate("<ButtonRelease-1>", x=3, y=3)


KEYS = {"SPACE": "space", " ": "space", "ENTER": "Return", "RETURN": "Return", "ESC": "Escape", "ESCAPE": "Escape",
        "LEFT": "Left", "RIGHT": "Right", "UP": "Up", "DOWN": "Down", "TAB": "Tab", "BACKSPACE": "BackSpace",
        "DELETE": "Delete", "HOME": "Home", "END": "End", "-": "minus", "+": "plus", "=": "equal", ".": "period",
        ",": "comma", "/": "slash", "*": "asterisk", "(": "parenleft", ")": "parenright", "%": "percent"}  # fmt: skip


def alive(root):
    try:
        return bool(root.winfo_exists())
    except Exception:
        return False


def tops(root):
    return [root, *(w for w in below(root) if w.winfo_class() == "Toplevel")]


def below(widget):
    found = []
    for child in widget.winfo_children():
        found += [child, *below(child)]
    return found


def names(widget, tkinter):
    found = [widget.winfo_name()]
    try:
        found.append(str(widget.cget("text")))
    except tkinter.TclError:
        pass
    return found


def fill(widget, value):
    kind = widget.winfo_class()
    if kind == "Text":
        widget.delete("1.0", "end")
        widget.insert("1.0", value)
    elif kind in ("Entry", "TEntry", "Spinbox", "TSpinbox"):
        widget.delete(0, "end")
        widget.insert(0, value)
        widget.event_generate("<KeyRelease>")
    elif kind == "Listbox":
        at = list(widget.get(0, "end")).index(value)
        widget.selection_clear(0, "end")
        widget.selection_set(at)
        widget.event_generate("<<ListboxSelect>>")
    else:
        widget.set(value)
        if kind == "TCombobox":
            widget.event_generate("<<ComboboxSelected>>")


def contents(widget, kind):
    """What a control holds that is not an option."""
    if kind in ("Entry", "TEntry", "Spinbox", "TSpinbox", "TCombobox", "Scale", "TScale"):
        return [f"holds={widget.get()!r}"]
    if kind == "Text":
        return [f"holds={widget.get('1.0', 'end-1c')!r}"]
    if kind == "Listbox":
        return [f"holds={list(widget.get(0, 'end'))!r}", f"chosen={widget.curselection()!r}"]
    if kind in ("Checkbutton", "Radiobutton") and str(widget.cget("variable")):
        try:
            return [f"is={widget.getvar(str(widget.cget('variable')))!r}"]
        except Exception:
            return []
    if kind == "Canvas":
        return ["\n" + "\n".join(item(widget, i) for i in widget.find_all())] if widget.find_all() else []
    return []


def item(canvas, number):
    parts = [f"    {canvas.type(number)}", " ".join(f"{c:g}" for c in canvas.coords(number))]
    for option, row in sorted((canvas.itemconfigure(number) or {}).items()):
        if option in ("fill", "outline", "text", "width", "state", "arrow", "tags", "image") and str(row[-1]) != str(
            row[-2]
        ):
            parts.append(f"{option}={row[-1]!s}")
    return " ".join(parts)


def begin(tkinter, plan):
    loop = Loop(tkinter)
    misc, idle = tkinter.Misc, tkinter.Misc.after_idle

    def after(self, ms, func=None, *args):
        if func is None:
            clock.sleep(float(ms) / 1000)
            return None
        return loop.after(self, ms, func, args)

    def after_cancel(self, id):
        loop.cancel(id)

    misc.after, misc.after_cancel = after, after_cancel
    misc.after_idle = lambda self, func, *args: idle(self, func, *args)
    misc.mainloop = lambda self, n=0: loop.run(self.winfo_toplevel() if not isinstance(self, tkinter.Tk) else self)
    tkinter.mainloop = lambda n=0: loop.run(tkinter._default_root)

    def quit(self):
        loop.quit = True

    misc.quit = quit
    update = misc.update

    def updated(self):
        update(self)
        if alive(self):
            loop.note(self._root())
            for event in turns.due():
                loop.give(self._root(), event)
            turns.over("frame")

    misc.update = updated
