"""What the parcel office of the line took in: small, large, lost, and "end" at closing time."""


def main():
    small = 0
    large = 0
    lost = 0
    pence = 0
    wrong = 0

    print("Parcel office")
    while True:
        kind = input("parcel> ").strip()
        if kind == "end":
            break
        if kind == "small":
            small += 1
            pence += 40
        elif kind == "large":
            large += 1
            pence += 95
        elif kind == "lost":
            lost += 1
            pence -= 200
        else:
            print("No such parcel:", kind)
            wrong += 1

    print("small", small, "large", large, "lost", lost)
    print("taken", pence)
    if wrong:
        print(wrong, "lines were not understood")


if __name__ == "__main__":
    main()
