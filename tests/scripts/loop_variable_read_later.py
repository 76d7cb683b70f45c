names = ["Mill", "Market", "Bridge"]
visits = 0


def tell():
    return f"last {stop} of {visits}"


def visit():
    global visits
    visits += 1


for stop in names:
    visit()
print(tell(), stop)
for i, (a, *rest) in enumerate(["ab", "cde"]):
    pass
print(i, a, rest)
