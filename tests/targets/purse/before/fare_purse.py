from dataclasses import dataclass, field

FULL = 50


@dataclass
class Purse:
    coins: int = 0
    tickets: list[str] = field(default_factory=list)
    locked: bool = False


def put_in(purse, coins):
    if purse.locked or purse.coins + coins > FULL:
        return False
    purse.coins += coins
    return True


def can_pay(purse, price):
    return not purse.locked and purse.coins >= price


def buy(purse, stop, price):
    if not can_pay(purse, price):
        return False
    purse.coins -= price
    purse.tickets.append(stop)
    return True


def lock(purse):
    purse.locked = not purse.locked


def report(purse):
    print(purse.coins, "coins,", ", ".join(purse.tickets) or "no ticket")


ours = Purse(20)
theirs = Purse()
print(put_in(ours, 12), put_in(theirs, 60))
print(buy(ours, "Quarry", 9))
lock(ours)
print(buy(ours, "Mill", 2), put_in(theirs, 4), buy(theirs, "Mill", 3))
report(ours)
report(theirs)
