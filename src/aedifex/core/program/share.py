"""Work on many files, shared among processes that each start with all that was read."""

from __future__ import annotations

import multiprocessing
import os
import signal
import sys
import threading
from collections.abc import Callable, Sequence
from typing import Any, TypeVar

T = TypeVar("T")
EACH = 40  # files from which on another process is worth its start
jobs: list[Callable[[str], Any]] = []  # what the processes find when they start


def shared(work: Callable[[str], T], names: Sequence[str]) -> list[T]:
    """``work`` for each name, in their order; what it gives must be plain data. One process does it all where they are few, or cannot be copied."""
    number = min(len(os.sched_getaffinity(0)), len(names) // EACH) if sys.platform == "linux" else 1
    if number < 2 or threading.active_count() > 1 or multiprocessing.current_process().daemon:
        return [work(name) for name in names]
    jobs.append(work)
    try:
        with multiprocessing.get_context("fork").Pool(number, signal.signal, (signal.SIGINT, signal.SIG_IGN)) as pool:
            return pool.map(last_job, names, max(1, len(names) // (number * 8)))
    except OSError:  # no more processes, or no memory for them
        return [work(name) for name in names]
    finally:
        jobs.pop()


def last_job(name: str) -> Any:
    return jobs[-1](name)
