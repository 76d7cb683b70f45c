mood = "calm"
count = 0


def speak():
    global count
    count += 1
    return "first " + mood


print(speak())


def speak():
    global count, mood
    count += 10
    mood = "loud"
    return "second " + mood


print(speak())
if count > 5:
    def bonus():
        return count * 2
else:
    def bonus():
        return 0
print(bonus())
