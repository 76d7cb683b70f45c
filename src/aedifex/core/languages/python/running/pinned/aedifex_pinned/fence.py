"""The fence around a run: writes stay in the scratch folder, the network ends at loopback.

The interpreter's audit events keep it, and tell which file or address was asked for. What they cannot see (other
programs, native code) runs only behind a second fence, which the kernel keeps where it can: Landlock, and a network of
the run's own.
"""

import os
import sys

from . import log

WRITES = os.O_WRONLY | os.O_RDWR | os.O_APPEND | os.O_CREAT | os.O_TRUNC
# event → (place of a path among its arguments, place of the folder that it is relative to)
CHANGES = {"os.remove": ((0, 1),), "os.rename": ((0, 2), (1, 3)), "os.mkdir": ((0, 2),), "os.rmdir": ((0, 1),),
           "os.truncate": ((0, 9),), "os.link": ((0, 2), (1, 3)), "os.symlink": ((1, 2),), "os.chmod": ((0, 2),),
           "os.chown": ((0, 3),), "os.utime": ((0, 3),)}  # fmt: skip
LOOPBACK = ("127.", "::1", "localhost", "0.0.0.0", "::")
UNSEEN = {"subprocess.Popen", "os.system", "os.exec", "os.posix_spawn", "os.fork", "os.forkpty",
    "pty.spawn", "ctypes.dlopen", "sqlite3.connect", "os.startfile"}  # fmt: skip
DEVICES = (
    "/dev/null",
    "/dev/tty",
    "/dev/zero",
    "/dev/full",
    "/dev/random",
    "/dev/urandom",
    "/dev/ptmx",
    "/dev/stdin",
    "/dev/stdout",
    "/dev/stderr",
)
TREES = ("/dev/pts/", "/dev/fd/", "/dev/input/", "/dev/snd/", "/dev/dri/", "/proc/")
LIBRARY = "lib-dynload"  # the interpreter's own extension modules are known
TOLD = set()
_raised = []


def raise_around(plan):
    inside = tuple(os.path.realpath(p) for p in plan["inside"])
    sys.addaudithook(hook((*inside, os.path.dirname(os.path.realpath(__file__)))))


def second_fence(inside):
    """Once, before the first thing that audit events do not see."""
    if not _raised:
        _raised.append(True)
        own_network()
        landlock(inside[:1])


def native(event, args):
    """Whether what is about to happen can write without an audit event."""
    if event in UNSEEN:
        return True
    return event == "import" and bool(args[1]) and args[1].endswith(".so") and LIBRARY not in args[1]


def placed(path, folder):
    """A path that may be relative to an open folder."""
    if not isinstance(path, (str, bytes)) or not isinstance(folder, int) or folder < 0 or os.path.isabs(path):
        return path
    return os.path.join(os.readlink(f"/proc/self/fd/{folder}"), os.fsdecode(path))


def hook(inside):
    """The audit hook: it refuses what leads out, and sees to the second fence in time."""

    def audit(event, args):
        if not _raised and native(event, args):
            second_fence(inside)
        if event == "open":
            opened(args, inside)
        elif event in CHANGES:
            for at, folder in CHANGES[event]:
                path = placed(args[at], args[folder] if folder < len(args) else -1)
                if not allowed(path, inside):
                    error = PermissionError(13, "Permission denied", args[at])
                    refuse(f"it tried to change {os.fsdecode(path)}, outside its scratch folder", error)
        elif event.startswith("socket."):
            reached(event, args)
        elif event in ("os.kill", "os.killpg") and not own(args[0], event == "os.killpg"):
            refuse(
                f"it tried to send a signal to process {args[0]}, which is none of its own",
                PermissionError(1, "Operation not permitted"),
            )

    return audit


def own(pid, group):
    """Whether a process, or a group of them, belongs to this run: it is of its session, or carries its mark."""
    if pid == 0 or (pid == os.getpid() and not group):
        return True
    if pid == -1:
        return False
    pid = abs(pid)
    try:
        if os.getsid(pid) == os.getsid(0):
            return True
        with open(f"/proc/{pid}/environ", "rb") as handle:
            mark = f"AEDIFEX_RUN={os.environ.get('AEDIFEX_RUN', '')}".encode()
            return mark in handle.read().split(b"\0")
    except ProcessLookupError:
        return True  # there is none: the program is told so
    except OSError:
        return False


def opened(args, inside):
    path, mode, flags = args
    if not isinstance(flags, int) or not flags & WRITES:
        return
    if mode is None and not _raised and type(path) is str and not os.path.isabs(path):
        second_fence(inside)  # it may be relative to any folder
    if not allowed(path, inside):
        sentence = f"it tried to write {os.fsdecode(path)}, outside its scratch folder"
        refuse(sentence, PermissionError(13, "Permission denied", path))


def reached(event, args):
    if event in ("socket.connect", "socket.sendto", "socket.bind"):
        address = args[1]
        if isinstance(address, tuple) and address and not local(address[0]):
            refuse(f"it tried to reach {address[0]} over the network", OSError(101, "Network is unreachable"))
    elif event == "socket.getaddrinfo" and args[0] and not local(args[0]):
        import socket

        error = socket.gaierror(-3, "Temporary failure in name resolution")
        refuse(f"it tried to reach {told(args[0])} over the network", error)


def allowed(path, inside):
    if not isinstance(path, (str, bytes)):
        return True
    real = os.path.realpath(os.fsdecode(path))
    return real in DEVICES or real.startswith(TREES) or any(real == p or real.startswith(p + "/") for p in inside)


def refuse(sentence, error):
    if sentence not in TOLD:
        TOLD.add(sentence)
        log.note("note", sentence)
    raise error


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
