"""``aedifex`` without its start: a process that has loaded the command forks for each call of it.

What runs is the installed command's own ``main``, in a process of its own with its own folder and streams; only the loading of
modules, which takes longer than most commands, is done once.
"""

from __future__ import annotations

import array
import atexit
import contextlib
import importlib
import json
import os
import socket
import subprocess
import sys
import threading
from functools import cache
from pathlib import Path

HERE = Path(__file__).parent


class Server:
    """The client's side; ended with the process that uses it."""

    def __init__(self) -> None:
        self.socket, other = socket.socketpair()
        self.child = subprocess.Popen(
            [sys.executable, "-c", f"import forked; forked.serve({other.fileno()})"],
            cwd=HERE,
            pass_fds=[other.fileno()],
            stdin=subprocess.DEVNULL,
        )
        other.close()
        self.answers = self.socket.makefile("r")
        atexit.register(self.child.kill)

    def run(self, args: list[str], folder: Path, timeout: float) -> subprocess.CompletedProcess[str]:
        pairs = [os.pipe() for _ in range(2)]
        ask = json.dumps({"args": args, "folder": str(folder), "environment": dict(os.environ)}).encode()
        self.socket.sendall(len(ask).to_bytes(4, "big"))
        self.socket.sendmsg([ask], [(socket.SOL_SOCKET, socket.SCM_RIGHTS, array.array("i", [w for _, w in pairs]))])
        said: list[bytes] = [b"", b""]
        for _, writing in pairs:
            os.close(writing)

        def read(index: int) -> None:
            with os.fdopen(pairs[index][0], "rb") as stream:
                said[index] = stream.read()

        readers = [threading.Thread(target=read, args=(i,), daemon=True) for i in range(2)]
        for reader in readers:
            reader.start()
        pid = int(self.answers.readline())
        late = threading.Timer(timeout, os.kill, (pid, 9))
        late.start()
        status = int(self.answers.readline())
        if not late.is_alive():
            raise subprocess.TimeoutExpired(args, timeout)
        late.cancel()
        for reader in readers:
            reader.join(10)
        out, errors = (text.decode("utf-8", "surrogateescape").replace("\r\n", "\n") for text in said)
        return subprocess.CompletedProcess(["aedifex", *args], status, out, errors)


@cache
def server() -> Server:
    return Server()


def serve(number: int) -> None:
    """Answer calls until the other side is gone."""
    from aedifex.cli.main import COMMANDS
    from aedifex.core.program.language import languages

    for name in COMMANDS:
        importlib.import_module(f"aedifex.cli.{name}")
    languages()
    link = socket.socket(fileno=number)
    while size := link.recv(4):
        ask, rights, _, _ = link.recvmsg(int.from_bytes(size, "big"), socket.CMSG_SPACE(8), socket.MSG_WAITALL)
        streams = array.array("i", rights[0][2]).tolist()
        pid = os.fork()
        if not pid:
            link.close()
            called(json.loads(ask), streams)
        for stream in streams:
            os.close(stream)
        link.sendall(b"%d\n" % pid)
        status = os.waitstatus_to_exitcode(os.waitpid(pid, 0)[1])
        link.sendall(b"%d\n" % status)


def called(ask: dict, streams: list[int]) -> None:
    """One call, in the forked process; never returns."""
    from aedifex.cli.main import main

    for number, stream in enumerate(streams, 1):
        os.dup2(stream, number)
        os.close(stream)
    os.chdir(ask["folder"])
    os.environ.clear()
    os.environ.update(ask["environment"])
    sys.stdout = open(1, "w", encoding="utf-8", closefd=False)  # noqa: SIM115
    sys.stderr = open(2, "w", encoding="utf-8", errors="backslashreplace", closefd=False)  # noqa: SIM115
    status = 1
    try:
        main(ask["args"])
        status = 0
    except SystemExit as end:
        status = end.code if isinstance(end.code, int) else 0 if end.code is None else 1
    except BaseException:
        import traceback

        traceback.print_exc()
    finally:
        with contextlib.suppress(BaseException):
            atexit._run_exitfuncs()
            for stream in (sys.stdout, sys.stderr):
                stream.flush()
        os._exit(status)
