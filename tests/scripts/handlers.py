import atexit
import signal as signals

open_doors = 0
log = []


def on_exit():
    print("exit", open_doors, log)


def on_alarm(number, frame):
    global open_doors
    open_doors += 1
    log.append(number == signals.SIGUSR1)


atexit.register(on_exit)
signals.signal(signals.SIGUSR1, on_alarm)
for _ in range(3):
    signals.raise_signal(signals.SIGUSR1)
print(open_doors)
