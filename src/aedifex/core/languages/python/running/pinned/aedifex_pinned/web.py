"""Requests to a program that serves the web, one after another, each answer noted.

Flask and other WSGI apps are called in the process; anything else that listens gets its requests over loopback, on a
port that is free.
"""

import atexit
import sys

from . import clock, hooks, log, state, turns
from .web_requests import Jar, body_of, note_answer

_plan = {"requests": []}
_done = False


def begin(plan):
    _plan.update(plan)
    hooks.AFTER["flask"] = flask
    hooks.AFTER["bottle"] = bottle
    hooks.AFTER["socket"] = sockets
    atexit.register(at_end)


def flask(module):
    def run(self, *args, **named):
        called(self)

    module.Flask.run = run


def bottle(module):
    def run(app=None, *args, **named):
        called(app if callable(app) else module.default_app())

    module.run = run
    module.Bottle.run = lambda self, **named: called(self)


def at_end():
    """A file of routes that starts nothing by itself: its app is called once the file has run."""
    if _done:
        return
    main = vars(sys.modules["__main__"])
    candidates = [v for v in main.values() if type(v).__name__ in ("Flask", "Bottle") and callable(v)]
    candidates += [main[n] for n in ("app", "application") if callable(main.get(n)) and main[n] not in candidates]
    if candidates:
        called(candidates[0])
    else:
        log.note(
            "trouble",
            "it neither served anything nor has an app that could be called (Flask, or a WSGI callable named app or "
            "application)",
        )


def called(app):
    """Send all requests to a WSGI app."""
    global _done
    if _done:
        return
    _done = True
    each(lambda request, jar: ask(app, request, jar), lambda error: f"it raised {type(error).__name__}: {error}")


def each(asked, failed, pause=0):
    """Send all requests one after another and note each answer; ``failed`` words an error."""
    jar = Jar()
    for number, request in enumerate(_plan["requests"], 1):
        label = f"response {number} ({request.get('method', 'GET')} {request['path']})"
        try:
            status, headers, body = asked(request, jar)
            jar.keep(headers)
            note_answer(label, status, headers, body)
        except Exception as error:
            note_answer(label, failed(error), [], b"")
        if pause:
            clock.real_sleep(pause)
        turns.over("request")


def ask(app, request, jar):
    import io

    body, kind = body_of(request)
    path, _, query = request["path"].partition("?")
    from urllib.parse import unquote_to_bytes

    environ = {
        "REQUEST_METHOD": request.get("method", "GET").upper(), "SCRIPT_NAME": "", "QUERY_STRING": query,
        "PATH_INFO": unquote_to_bytes(path).decode("latin-1"), "SERVER_NAME": "localhost", "SERVER_PORT": "80",
        "SERVER_PROTOCOL": "HTTP/1.1", "HTTP_HOST": "localhost", "REMOTE_ADDR": "127.0.0.1", "wsgi.version": (1, 0),
        "wsgi.url_scheme": "http", "wsgi.input": io.BytesIO(body), "wsgi.errors": sys.stderr, "wsgi.multithread": False,
        "wsgi.multiprocess": False, "wsgi.run_once": False, "CONTENT_LENGTH": str(len(body)),
    }  # fmt: skip
    if kind:
        environ["CONTENT_TYPE"] = kind
    for name, value in {**jar.header(), **request.get("headers", {})}.items():
        upper = name.upper().replace("-", "_")
        environ[upper if upper == "CONTENT_TYPE" else "HTTP_" + upper] = str(value)
    answer = []
    written = []

    def start_response(status, headers, error=None):
        answer[:] = [status, headers]
        return written.append

    found = app(environ, start_response)
    try:
        parts = list(found)
    finally:
        if hasattr(found, "close"):
            found.close()
    return answer[0], answer[1], b"".join(written) + b"".join(parts)


# -- servers -------------------------------------------------------------------------------------


def sockets(module):
    """The first socket that listens gets all requests, from a thread; afterwards the server is interrupted."""
    base = module.socket
    bind, listen = base.bind, base.listen

    def free(self, address):
        if isinstance(address, tuple) and self.type & module.SOCK_STREAM:
            bind(self, ("127.0.0.1", 0, *address[2:]) if self.family == module.AF_INET else ("::1", 0, *address[2:]))
        else:
            bind(self, address)

    def listening(self, *backlog):
        listen(self, *backlog)
        if not _done and self.family in (module.AF_INET, module.AF_INET6):
            serve(self.getsockname())

    base.bind, base.listen = free, listening


def serve(address):
    global _done
    _done = True
    import threading

    threading.Thread(target=send_all, args=(address,), daemon=True, name="requests").start()


def send_all(address):
    # the pause is for a handler that has something to do after it has answered
    each(lambda request, jar: send(address, request, jar), lambda error: f"no answer ({type(error).__name__})", 0.01)
    log.note("stopped", "after its last request")
    import _thread

    _thread.interrupt_main()
    clock.real_sleep(1.5)
    state.at_end()
    turns.end("")


def send(address, request, jar):
    import http.client

    connection = http.client.HTTPConnection(address[0], address[1], timeout=8)
    body, kind = body_of(request)
    headers = {"Host": "localhost", **jar.header(), **request.get("headers", {})}
    if kind:
        headers.setdefault("Content-Type", kind)
    connection.request(request.get("method", "GET").upper(), request["path"], body or None, headers)
    answer = connection.getresponse()
    data = answer.read()
    connection.close()
    return f"{answer.status} {answer.reason}", answer.getheaders(), data
