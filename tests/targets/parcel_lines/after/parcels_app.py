from parcel_tally import ParcelTally


class ParcelsApp:
    def __init__(self, console):
        self._console = console
        self._tally = ParcelTally()
        self._wrong = 0

    def run(self):
        self._console.say("Parcel office")
        while True:
            kind = self._console.ask("parcel> ").strip()
            if kind == "end":
                break
            self._handle_kind(kind)
        self._console.say("small", self._tally.small, "large", self._tally.large, "lost", self._tally.lost)
        self._console.say("taken", self._tally.pence)
        if self._wrong:
            self._console.say(self._wrong, "lines were not understood")

    def _handle_kind(self, kind):
        if kind == "small":
            self._tally.add_small()
        elif kind == "large":
            self._tally.add_large()
        elif kind == "lost":
            self._tally.add_lost()
        else:
            self._console.say("No such parcel:", kind)
            self._wrong += 1
