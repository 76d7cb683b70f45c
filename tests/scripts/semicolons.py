x = 1; y = 2; z = [0]
w = 5;
def move(): global x, y; x += y; y = x
def draw():
    global z; z = z + [x]; print(x, y, z)
for i in range(2): move(); draw()
if x > 2: print("far")
print(w)
