pos = 0
vel = 1


def step(by):
	global pos, vel
	# a comment
	if by > 1:
		pos += vel * by
	else:
		vel += 1
	return pos


def back():
	global pos
	pos -= 1


for n in range(4):
	print(step(n))
	back()
print(pos, vel)
