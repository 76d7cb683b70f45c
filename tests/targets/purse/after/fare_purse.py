from purse import Purse


def report(purse):
    print(purse.coins, "coins,", ", ".join(purse.tickets) or "no ticket")


ours = Purse(20)
theirs = Purse()
print(ours.put_in(12), theirs.put_in(60))
print(ours.buy("Quarry", 9))
ours.lock()
print(ours.buy("Mill", 2), theirs.put_in(4), theirs.buy("Mill", 3))
report(ours)
report(theirs)
