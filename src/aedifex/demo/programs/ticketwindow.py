"""The ticket window of the Brindlebeck tram line: buttons, a list of what was sold, a clock that runs.

Written on two evenings; everything is set up in one go, and the buttons' work stands where they are made.
"""

import tkinter as tk

FARES = {"single": 3, "return": 5, "day": 8}
LATE = 6


def main():
    sold = 0
    takings = 0
    minutes = 0
    is_open = True
    log = []

    root = tk.Tk()
    root.title("Brindlebeck tickets")

    clock_label = tk.Label(root, text="0 min")
    clock_label.pack()
    takings_label = tk.Label(root, text="0 crowns")
    takings_label.pack()
    state_label = tk.Label(root, text="open")
    state_label.pack()

    def show():
        clock_label.config(text=f"{minutes} min")
        takings_label.config(text=f"{takings} crowns for {sold} tickets")
        state_label.config(text="open" if is_open else "closed")

    def sell(kind):
        nonlocal sold, takings
        if not is_open:
            log.append("refused " + kind)
            return
        sold += 1
        takings += FARES[kind]
        log.append(kind)
        show()

    def close_window():
        nonlocal is_open
        is_open = not is_open
        show()

    def tick():
        nonlocal minutes, is_open
        minutes += 1
        if minutes == LATE:
            is_open = False
        show()
        if minutes < 12:
            root.after(50, tick)

    # a button for each ticket
    for kind in FARES:
        tk.Button(root, text=kind, name=kind, command=lambda kind=kind: sell(kind)).pack()
    tk.Button(root, text="Open or close", name="shutter", command=close_window).pack()
    tk.Button(root, text="Print", name="print", command=lambda: print(", ".join(log))).pack()

    root.after(50, tick)
    root.mainloop()
    print("sold", sold, "for", takings)


if __name__ == "__main__":
    main()
