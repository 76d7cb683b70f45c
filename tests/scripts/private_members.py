class Purse:
    pass


purse = Purse()
purse.__coins = 3
spent = 0
saved = purse.__coins * 2


def save(n):
    global saved, spent
    saved += n
    spent += 0
    return saved


def spend(n):
    global spent
    purse.__coins -= n
    spent += n
    return purse.__coins


for n in (1, 1):
    print(spend(n), purse.__coins, spent, vars(purse) == {"__coins": purse.__coins})
print(save(1), saved)
