tram_a = 1
tram_b = 2


def bump(name):
    globals()["tram_" + name] += 10


def total():
    return tram_a + tram_b


bump("a")
bump("b")
print(total(), eval("tram_a * tram_b"), sorted(k for k in globals() if k.startswith("tram_")))
