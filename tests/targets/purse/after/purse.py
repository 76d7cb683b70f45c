from dataclasses import dataclass, field

FULL = 50


@dataclass
class Purse:
    coins: int = 0
    tickets: list[str] = field(default_factory=list)
    locked: bool = False

    def put_in(self, coins):
        if self.locked or self.coins + coins > FULL:
            return False
        self.coins += coins
        return True

    def can_pay(self, price):
        return not self.locked and self.coins >= price

    def buy(self, stop, price):
        if not self.can_pay(price):
            return False
        self.coins -= price
        self.tickets.append(stop)
        return True

    def lock(self):
        self.locked = not self.locked
