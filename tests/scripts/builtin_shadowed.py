from functools import partial

print = partial(print, end="!\n")
rides = 0


def ride():
    global rides
    rides += 1
    print("ride", rides)


ride()
for _ in range(2):
    ride()
print("done", rides)
