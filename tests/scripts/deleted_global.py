ticket = 5
box = 0


def pay():
    global box
    box += ticket


pay()
pay()
del ticket
try:
    pay()
except NameError as error:
    print("no ticket", type(error).__name__)
print(box)
