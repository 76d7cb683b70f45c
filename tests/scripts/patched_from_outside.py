import helper_module
import patching_module

speed = 1
doors = 0


def shut():
    global doors
    doors += speed
    return helper_module.read()


if __name__ == "__main__":
    patching_module.patch()
    for _ in range(3):
        print(shut(), doors)
