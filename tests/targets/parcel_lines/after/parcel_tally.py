class ParcelTally:
    def __init__(self):
        self.small = 0
        self.large = 0
        self.lost = 0
        self.pence = 0

    def add_small(self):
        self.small += 1
        self.pence += 40

    def add_large(self):
        self.large += 1
        self.pence += 95

    def add_lost(self):
        self.lost += 1
        self.pence -= 200
