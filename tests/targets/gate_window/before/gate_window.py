"""The level crossing of Tolverby: gates, bell, and who waits."""

import tkinter as tk


class GateWindow:
    def __init__(self, root):
        self.root = root
        root.title("Crossing of Tolverby")
        gates_open = True
        rings = [0]
        waiting = []
        status = tk.Label(root, text="gates open")
        status.pack()
        entry = tk.Entry(root)
        entry.pack()

        def show():
            status.config(text=f"{len(waiting)} wait, {rings[0]} rings")

        def move_gates():
            nonlocal gates_open
            gates_open = not gates_open
            if gates_open:
                waiting.clear()
            show()

        def ring_bell():
            # the bell rings twice when somebody waits
            rings[0] += 2 if waiting else 1
            show()

        tk.Button(root, text="Gates", command=move_gates).pack()
        tk.Button(root, text="Bell", command=ring_bell).pack()
        entry.bind("<Return>", lambda event: (waiting.append(entry.get()), show()))
        for side in ("north", "south"):

            def arrive():
                if not gates_open:
                    waiting.append(side)
                show()

            tk.Button(root, text=side, command=arrive).pack()
        show()


if __name__ == "__main__":
    window = tk.Tk()
    GateWindow(window)
    window.mainloop()
