"""Brindlebeck fares: the ticket window, on the console."""

ZONES = {"mill": 1, "market": 1, "bridge": 2, "quarry": 3}
PRICE_PER_ZONE = 2

# the till
till_cash = 20
till_sold = 0
till_open = False

# the card of the person at the window
card_owner = ""
card_rides = 0
card_used = 0

# lost property
lost_items = []
lost_returned = 0


def open_till():
    global till_open
    if till_open:
        print("The till is open already.")
    else:
        till_open = True
        print("The till is open with", till_cash, "marks.")


def sell_ticket(zones, count):
    global till_cash, till_sold
    price = zones * PRICE_PER_ZONE * count
    if count >= 5:
        price -= count          # a group pays one mark less each
    till_cash += price
    till_sold += count
    print(f"{count} for {zones} zone(s): {price} marks")
    return price


def close_till():
    global till_open, till_cash
    taken = till_cash - 20
    till_cash = 20
    till_open = False
    print("Closed;", taken, "marks for the depot,", till_sold, "tickets sold")
    return taken


def fill_card(owner, rides):
    global card_owner, card_rides, card_used
    if owner != card_owner:
        card_owner = owner
        card_rides = 0
        card_used = 0
    card_rides += rides


def stamp_card():
    global card_rides, card_used
    if card_rides <= 0:
        return False
    card_rides -= 1
    card_used += 1
    return True


def show_card():
    if not card_owner:
        print("no card")
    else:
        stars = "*" * card_rides + "." * card_used
        print(f"{card_owner} [{stars}] {card_rides} left")


def hand_in(item):
    lost_items.append(item)
    print(len(lost_items), "thing(s) lost")


def give_back(item):
    global lost_returned
    if item in lost_items:
        lost_items.remove(item)
        lost_returned += 1
        return True
    return False


def ask_number(question):
    while True:
        answer = input(question)
        if answer.isdigit():
            return int(answer)
        print("A number, please.")


print("Ticket window of Brindlebeck")
while True:
    command = input("> ").strip().lower()
    if command == "quit":
        break
    elif command == "open":
        open_till()
    elif command == "sell":
        if not till_open:
            print("The till is closed.")
            continue
        stop = input("To which stop? ").strip().lower()
        if stop not in ZONES:
            print("The tram does not go there.")
            continue
        sell_ticket(ZONES[stop], ask_number("How many? "))
    elif command == "card":
        owner = input("Whose card? ").strip()
        fill_card(owner, ask_number("How many rides? "))
        show_card()
    elif command == "stamp":
        print("good ride" if stamp_card() else "the card is empty")
        show_card()
    elif command == "lost":
        hand_in(input("What was found? ").strip())
    elif command == "fetch":
        found = give_back(input("What did you lose? ").strip())
        print("here you are" if found else "nobody brought it")
    elif command == "close":
        close_till()
    else:
        print("open, sell, close, card, stamp, lost, fetch or quit")

print("Good night;", till_sold, "tickets,", card_used, "rides,", lost_returned, "things returned")
