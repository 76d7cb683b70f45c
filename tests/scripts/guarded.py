from __future__ import annotations

import sys

speed = 1
stops: list[str] = []


def call_at(name: str) -> None:
    global speed
    stops.append(name)
    speed += 1


def main(argv: list[str]) -> int:
    for name in argv or ["Mill", "Bridge"]:
        call_at(name)
    print(speed, stops)
    return 3


if __name__ == "__main__":
    code = main(sys.argv[1:])
    print("leaving", code)
    sys.exit(code)
