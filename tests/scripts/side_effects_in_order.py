import sys


def note(text):
    print("note", text)
    return text


first_name = note("one")
print("between")
second_name = note("two")
third_name = second_name + "!"
count = len(sys.argv)


def show():
    global count, first_name
    count += 1
    first_name = first_name.upper()
    return first_name, second_name, third_name, count


def change():
    global second_name, third_name
    second_name, third_name = third_name, second_name


print(show())
change()
print(show())
