"""Bank."""
accounts = {"ann": 10, "bob": 5}
log = []
fee = 1
def deposit(name, amount):
    accounts[name] += amount
    log.append(("d", name, amount))
def withdraw(name, amount):
    if accounts[name] < amount + fee:
        raise ValueError("too little")
    accounts[name] -= amount + fee
    log.append(("w", name, amount))
def transfer(a, b, amount):
    withdraw(a, amount)
    deposit(b, amount)
def set_fee(n):
    global fee
    old, fee = fee, n
    return old
def menu():
    print("1 deposit")
    return "1"
if __name__ == "__main__":
    while True:
        choice = menu()
        deposit("ann", 5)
        try:
            transfer("ann", "bob", 12)
        except ValueError as e:
            print("error", e)
        print(set_fee(fee + 1))
        if fee > 3:
            break
    print(accounts, log)
