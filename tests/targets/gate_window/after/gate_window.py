"""The level crossing of Tolverby: gates, bell, and who waits."""

import tkinter as tk


class GateWindow:
    def __init__(self, root):
        self.root = root
        root.title("Crossing of Tolverby")
        self._gates_open = True
        self._rings = 0
        self._waiting = []
        self._status = tk.Label(root, text="gates open")
        self._status.pack()
        self._entry = tk.Entry(root)
        self._entry.pack()

        tk.Button(root, text="Gates", command=self._move_gates).pack()
        tk.Button(root, text="Bell", command=self._ring_bell).pack()
        self._entry.bind("<Return>", self._on_entry_return)
        for side in ("north", "south"):
            tk.Button(root, text=side, command=lambda: self._arrive(side)).pack()
        self._show()

    def _show(self):
        self._status.config(text=f"{len(self._waiting)} wait, {self._rings} rings")

    def _move_gates(self):
        self._gates_open = not self._gates_open
        if self._gates_open:
            self._waiting.clear()
        self._show()

    def _ring_bell(self):
        # the bell rings twice when somebody waits
        self._rings += 2 if self._waiting else 1
        self._show()

    def _on_entry_return(self, event):
        self._waiting.append(self._entry.get())
        self._show()

    def _arrive(self, side):
        if not self._gates_open:
            self._waiting.append(side)
        self._show()


if __name__ == "__main__":
    window = tk.Tk()
    GateWindow(window)
    window.mainloop()
