"""What is sent to a program that serves the web, and what of its answers counts."""

from . import log

MATTER = ("content-type", "location", "set-cookie", "allow", "www-authenticate", "cache-control", "etag", "vary",
          "content-disposition", "access-control-allow-origin", "retry-after", "content-encoding")  # fmt: skip
LONG = 1 << 16  # bytes of a body that are noted as text


class Jar:
    """Cookies, as a browser keeps them for one site."""

    def __init__(self):
        self.held = {}

    def keep(self, headers):
        for name, value in headers:
            if name.lower() == "set-cookie":
                pair, _, rest = value.partition(";")
                key, _, content = pair.partition("=")
                if "max-age=0" in rest.lower() or "expires=thu, 01 jan 1970" in rest.lower():
                    self.held.pop(key.strip(), None)
                else:
                    self.held[key.strip()] = content

    def header(self):
        return {"Cookie": "; ".join(f"{k}={v}" for k, v in self.held.items())} if self.held else {}


def body_of(request):
    """(bytes, content type) of what a request carries."""
    if "json" in request:
        import json

        return json.dumps(request["json"]).encode(), "application/json"
    if "form" in request:
        from urllib.parse import urlencode

        return urlencode(request["form"]).encode(), "application/x-www-form-urlencoded"
    return request.get("body", "").encode("utf-8", "surrogateescape"), ""


def note_answer(label, status, headers, body):
    rows = [f"{name}: {value}" for name, value in sorted(headers, key=lambda h: h[0].lower()) if name.lower() in MATTER]
    log.note("shot", label, "\n".join([str(status), *rows, "", text_of(body)]))


def text_of(body):
    import zlib

    try:
        text = body.decode("utf-8")
    except UnicodeDecodeError:
        return f"<{len(body)} bytes, {zlib.crc32(body):08x}>"
    return text if len(body) <= LONG else f"{text[:LONG]}\n<{len(body)} bytes in all, {zlib.crc32(body):08x}>"
