class Console:
    """Where the program asks and tells; other streams can be handed in."""

    def __init__(self, source=None, sink=None):
        self._source = source
        self._sink = sink

    def say(self, *values, sep=" ", end="\n", flush=False):
        print(*values, sep=sep, end=end, file=self._sink, flush=flush)

    def ask(self, prompt=""):
        if self._source is None:
            return input(prompt)
        self.say(prompt, end="", flush=True)
        line = self._source.readline()
        if not line:
            raise EOFError("EOF when reading a line")
        return line.rstrip("\n")
