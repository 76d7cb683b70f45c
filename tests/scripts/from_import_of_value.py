import helper_module
from helper_module import level

helper_module.level = 7
here = 0


def climb():
    global here
    here += helper_module.level
    return here


for _ in range(2):
    climb()
print(level, helper_module.level, helper_module.read(), here)
