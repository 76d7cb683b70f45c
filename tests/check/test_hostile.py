"""Programs that misbehave: a clear word, nothing left running, nothing outside touched."""

import os
import subprocess
import time
import uuid

import pytest

BODY = """
import {imports}
count = 0


def step():
    global count
    count += 1
    return count


step()
{main}
print("count", step())
"""


def recorded(folder, imports, main, scenario="seconds = 3\n"):
    folder.write("line.py", BODY.format(imports=imports, main=main))
    folder.write("line.scenarios.toml", "[[scenario]]\nname = 'run'\n" + scenario)
    assert folder.aedifex("draft", "-q", "line.py").returncode == 0
    return folder.aedifex("record", "line.scenarios.toml")


def running(word: str) -> int:
    listed = subprocess.run(["ps", "-eo", "args"], capture_output=True, text=True).stdout
    return sum(word in line for line in listed.splitlines() if "ps -eo" not in line)


@pytest.mark.parametrize("leave", ["os.setsid()", "pass"])
def test_a_daemon_is_ended_too(folder, leave):
    """Children that leave the process group and lose their parent are found all the same."""
    mark = f"7{uuid.uuid4().int % 10**8}"
    main = (
        f"if os.fork() == 0:\n    {leave}\n    os.environ['X'] = 'y'\n    if os.fork() == 0:\n"
        f"        os.execvp('sleep', ['sleep', '{mark}'])\n    os._exit(0)\nos.wait()"
    )
    done = recorded(folder, "os", main)
    assert done.returncode == 0, done.stderr
    assert running(f"sleep {mark}") == 0


def test_many_processes_are_ended(folder):
    mark = f"8{uuid.uuid4().int % 10**8}"
    main = f"for _ in range(260):\n    subprocess.Popen(['sleep', '{mark}'], start_new_session=True)\nwhile True: pass"
    done = recorded(folder, "subprocess", main, "seconds = 30\n")
    assert done.returncode == 1 and "more than 200 processes" in done.stderr, done.stderr
    assert running(f"sleep {mark}") == 0


def test_nothing_outside_the_scratch_folder_is_touched(folder, tmp_path_factory):
    """Refused to the interpreter, and to programs that it starts; the word says which file."""
    outside = tmp_path_factory.mktemp("outside")
    kept = outside / "kept.txt"
    kept.write_text("as it was")
    main = f"""
for act in (lambda: open({str(outside / "new.txt")!r}, 'w'), lambda: os.remove({str(kept)!r}), lambda: open({str(kept)!r}, 'a'),
            lambda: os.rename({str(kept)!r}, 'mine.txt'), lambda: os.mkdir({str(outside / "sub")!r}), lambda: shutil.rmtree({str(outside)!r})):
    try:
        act()
        print("allowed")
    except OSError as error:
        print("refused", error.errno)
os.system("touch {outside}/by-shell.txt; rm -f {kept}; echo x > {kept}")
open("inside.txt", "w").write("fine")
"""
    done = recorded(folder, "os, shutil", main)
    assert done.returncode == 0, done.stderr
    assert "1 files written" in done.stdout and "outside its scratch folder" in done.stderr and "new.txt" in done.stderr
    assert [p.name for p in outside.iterdir()] == ["kept.txt"] and kept.read_text() == "as it was"
    assert not (folder.path / "inside.txt").exists()


def test_the_network_ends_at_loopback(folder):
    main = """
for address in (("192.0.2.1", 80), ("198.51.100.7", 443)):
    try:
        socket.create_connection(address, timeout=2)
        print("connected")
    except OSError as error:
        print("refused")
try:
    socket.gethostbyname("tram.example")
except OSError:
    print("unknown")
server = socket.create_server(("127.0.0.1", 0))
client = socket.create_connection(server.getsockname())
print(client.getpeername()[0])
"""
    done = recorded(folder, "socket", main)
    assert done.returncode == 0 and "it tried to reach 192.0.2.1 over the network" in done.stderr, done.stderr
    assert "5 lines" in done.stdout


@pytest.mark.parametrize(
    ("imports", "main"),
    [
        ("time", "time.sleep(3600)"),
        ("threading", "threading.Event().wait(3600)"),
        ("asyncio", "asyncio.run(asyncio.sleep(3600))"),
        ("select", "select.select([], [], [], 2)"),
        ("time", "start = time.time()\nwhile time.time() < start + 5: pass"),
        ("time", "start = time.monotonic()\nwhile time.monotonic() - start < 5: time.sleep(0.01)"),
        ("sched, time", "s = sched.scheduler(time.time, time.sleep)\ns.enter(900, 1, print, ('rung',))\ns.run()"),
    ],
)
def test_waiting_takes_no_time(folder, imports, main):
    start = time.monotonic()
    done = recorded(folder, imports, main, "seconds = 10\n")
    assert done.returncode == 0, done.stderr
    assert time.monotonic() - start < 30


@pytest.mark.parametrize(
    ("imports", "main"),
    [
        ("numpy", "print(numpy.random.rand(), numpy.random.default_rng().random(), numpy.random.RandomState().rand())"),
        (
            "random, os, secrets, uuid",
            "print(random.Random().random(), os.urandom(4), secrets.token_hex(4), uuid.uuid4())",
        ),
        ("tempfile, os", "print(os.path.basename(tempfile.mkdtemp()))"),
        ("time, datetime", "print(time.time(), datetime.datetime.now(), datetime.date.today(), time.localtime())"),
        ("os, locale, shutil", "print(os.environ['TZ'], locale.getlocale(), shutil.get_terminal_size())"),
    ],
)
def test_chance_and_surroundings_are_pinned(folder, imports, main):
    done = recorded(folder, imports, main, "seconds = 10\n")
    assert done.returncode == 0, done.stderr


def test_output_files_and_folders_that_resist(folder):
    """Odd names, no permission, links, big files: what was made is compared or refused, and all of it is taken away."""
    main = """
os.makedirs("deep/er", exist_ok=True)
open("deep/er/\\udcff odd \\n name", "w").write("x")
os.symlink("/etc/passwd", "link")
os.mkfifo("pipe")
os.chmod("deep/er", 0o500)
os.chmod("deep", 0o000)
"""
    before = set(os.listdir("/tmp"))
    done = recorded(folder, "os", main)
    assert done.returncode == 0, done.stderr
    assert not [
        n
        for n in set(os.listdir("/tmp")) - before
        if n.startswith("aedifex-") and os.path.exists(f"/tmp/{n}/work/deep")
    ]


def test_difference_that_is_left_to_chance_is_placed(folder):
    done = recorded(folder, "os", "print('fine')\nprint('pid', os.getpid())")
    assert done.returncode == 1
    assert "two runs of the original differ: output, line 2" in done.stderr and "mask it with 'ignore'" in done.stderr
