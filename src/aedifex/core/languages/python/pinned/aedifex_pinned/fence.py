"""The fence around a run: writes stay in the scratch folder, the network ends at loopback.

The kernel keeps it where it can (Landlock, a network of the run's own); the interpreter's audit events keep it elsewhere
and tell which file or address was asked for.
"""

import os
import sys

from . import log

WRITES = os.O_WRONLY | os.O_RDWR | os.O_APPEND | os.O_CREAT | os.O_TRUNC
CHANGES = {"os.remove": (0,), "os.rename": (0, 1), "os.mkdir": (0,), "os.rmdir": (0,), "os.truncate": (0,),
           "os.link": (0, 1), "os.symlink": (1,), "os.chmod": (0,), "os.chown": (0,), "os.utime": (0,)}  # fmt: skip
LOOPBACK = ("127.", "::1", "localhost", "0.0.0.0", "::")
TOLD = set()


def raise_around(plan):
    inside = tuple(os.path.realpath(p) for p in plan["inside"])
    if "network" in plan.get("keep_in", ()):
        own_network()
    if "files" in plan.get("keep_in", ()):
        landlock(inside)
    sys.addaudithook(hook(inside))


def hook(inside):
    def allowed(path):
        if not isinstance(path, (str, bytes)):
            return True
        real = os.path.realpath(os.fsdecode(path))
        return real.startswith("/dev/") or real.startswith("/proc/") or any(real == p or real.startswith(p + "/") for p in inside)

    def refuse(sentence, error):
        if sentence not in TOLD:
            TOLD.add(sentence)
            log.note("note", sentence)
        raise error

    def audit(event, args):
        if event == "open":
            path, _, flags = args
            if isinstance(flags, int) and flags & WRITES and not allowed(path):
                refuse(f"it tried to write {os.fsdecode(path)}, outside its scratch folder", PermissionError(13, "Permission denied", path))
        elif event in CHANGES:
            for index in CHANGES[event]:
                if not allowed(args[index]):
                    refuse(f"it tried to change {os.fsdecode(args[index])}, outside its scratch folder", PermissionError(13, "Permission denied", args[index]))
        elif event in ("socket.connect", "socket.sendto", "socket.bind"):
            address = args[1]
            if isinstance(address, tuple) and address and not local(address[0]):
                refuse(f"it tried to reach {address[0]} over the network", OSError(101, "Network is unreachable"))
        elif event == "socket.getaddrinfo":
            if args[0] and not local(args[0]):
                import socket

                refuse(f"it tried to reach {told(args[0])} over the network", socket.gaierror(-3, "Temporary failure in name resolution"))

    return audit


def told(host):
    return host.decode("utf-8", "replace") if isinstance(host, bytes) else str(host)


def local(host):
    return not host or told(host).startswith(LOOPBACK)


def own_network():
    """A network namespace with loopback only."""
    try:
        import ctypes
        import fcntl
        import socket
        import struct

        libc = ctypes.CDLL(None, use_errno=True)
        user, group = os.getuid(), os.getgid()
        if libc.unshare(0x10000000 | 0x40000000):
            return
        for name, text in (("setgroups", "deny"), ("uid_map", f"{user} {user} 1"), ("gid_map", f"{group} {group} 1")):
            with open("/proc/self/" + name, "w") as handle:
                handle.write(text)
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as s:
            fcntl.ioctl(s, 0x8914, struct.pack("16sH14x", b"lo", 0x1 | 0x40))
    except Exception:
        return


def landlock(inside):
    """Writing is allowed below some folders only, for this process and all that it starts."""
    try:
        import ctypes
        import struct

        libc = ctypes.CDLL(None, use_errno=True)
        version = libc.syscall(444, None, 0, 1)
        if version < 1:
            return
        writing = 0x1FF2 if version < 2 else 0x3FF2 if version < 3 else 0x7FF2
        rules = libc.syscall(444, struct.pack("Q", writing), 8, 0)
        if rules < 0:
            return
        for path in (*inside, "/dev", "/proc"):
            place = os.open(path, os.O_PATH | os.O_CLOEXEC)
            libc.syscall(445, rules, 1, struct.pack("=Qi", writing, place), 0)
            os.close(place)
        libc.prctl(38, 1, 0, 0, 0)
        libc.syscall(446, rules, 0)
        os.close(rules)
    except Exception:
        return
