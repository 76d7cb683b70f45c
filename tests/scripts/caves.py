"""A walk through caves: tables, a stack of places, and a parser of commands."""
import sys

ROOMS = {
    "mouth": {"exits": {"in": "hall"}, "text": """You stand at the mouth.
   It is dark inside."""},
    "hall": {"exits": {"out": "mouth", "down": "lake"}, "text": "A wide hall."},
    "lake": {"exits": {"up": "hall"}, "text": "A still lake."},
}
place = "mouth"
trail = []
lamp_lit = False
lamp_oil = 4
moves = 0
score = 0


def look():
    room = ROOMS[place]
    if place != "mouth" and not lamp_lit:
        return "It is too dark to see."
    return room["text"]


def lamp_burn():
    global lamp_oil, lamp_lit
    if lamp_lit:
        lamp_oil -= 1
        if lamp_oil <= 0:
            lamp_lit = False
            print("The lamp goes out.")


def lamp_light():
    global lamp_lit
    lamp_lit = lamp_oil > 0
    return "It burns." if lamp_lit else "No oil."


def lamp_fill(n=2):
    global lamp_oil
    lamp_oil += n
    return lamp_oil


def go(way):
    global place, moves, score
    exits = ROOMS[place]["exits"]
    if way not in exits:
        return f"There is no way {way}."
    trail.append(place)
    place = exits[way]
    moves += 1
    score += 5 if place == "lake" and lamp_lit else 1
    lamp_burn()
    return look()


def back():
    global place
    if trail:
        place = trail.pop()
    return look()


COMMANDS = {"look": look, "back": back, "light": lamp_light, "fill": lamp_fill}


def obey(line):
    words = line.split()
    if not words:
        return None
    verb, *rest = words
    if verb in COMMANDS:
        return COMMANDS[verb]()
    elif verb == "go" and rest:
        return go(rest[0])
    return "What?"


for typed in ["look", "go in", "light", "look", "go down", "back", "go up", "go out", "", "sing", "fill", "go in", "go down"]:
    answer = obey(typed)
    if answer is None:
        continue
    print(">", typed)
    print(answer)
print(place, trail, lamp_lit, lamp_oil, moves, score)
sys.exit(score % 7)
