"""Syntax of recent years: match, walrus, groups of exceptions, positional-only parameters, nested format strings."""
import sys
from typing import Final

LIMIT: Final = 3
seen: dict[str, int] = {}
level = 0
order: list[str] = []


def note(kind, /, amount: int = 1, *, loud: bool = False) -> int:
    global level
    match (kind, amount):
        case ("stop" | "halt", _):
            level = 0
        case (str(name), int(n)) if n > LIMIT:
            level += n
            order.append(name)
        case (_, 0):
            pass
        case (other, n):
            level += 1
            order.append(f"{other!s:>{n + 4}}")
    seen[kind] = seen.get(kind, 0) + amount
    if (total := sum(seen.values())) > 10:
        order.append(f"{'loud' if loud else 'quiet'} {total=}")
    return level


async def settle():
    global level
    async for n in counted():
        level -= n
    return level


async def counted():
    for n in range(LIMIT):
        yield n + level * 0


def groups():
    global level
    try:
        raise ExceptionGroup("many", [ValueError(1), TypeError(2)])
    except* ValueError as found:
        level += len(found.exceptions)
    except* TypeError:
        level += 10


for kind, *rest in [("go", 1), ("stop",), ("fast", 5), ("slow", 0), ("go", 2)]:
    note(kind, *rest, loud=bool(rest))
groups()
print(level, seen, order)

import asyncio

print(asyncio.run(settle()), sys.version_info >= (3, 11))
