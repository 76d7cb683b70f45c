random_seed = 1
random_count = 0
signal_on = False
signal_changes = 0


def random_next():
    global random_seed, random_count
    random_seed = (random_seed * 7 + 3) % 11
    random_count += 1
    return random_seed


def signal_switch():
    global signal_on, signal_changes
    signal_on = not signal_on
    signal_changes += 1


def signal_show():
    return "on" if signal_on else "off"


def random_report():
    return f"{random_count} draws, last {random_seed}"


for _ in range(4):
    if random_next() > 4:
        signal_switch()
    print(signal_show(), random_seed)
print(random_report(), signal_changes)
