#!/usr/bin/env python
import random, math

WIDTH, HEIGHT = 20, 5
ball_x, ball_y = WIDTH // 2, HEIGHT // 2
ball_dx = 1
ball_dy = 1
score_left = score_right = 0
paddle_left = 2
paddle_right = 2
running = True

def reset_ball(direction):
    global ball_x, ball_y, ball_dx
    ball_x, ball_y = WIDTH // 2, HEIGHT // 2
    ball_dx = direction

def update_ball():
    global ball_x, ball_y, ball_dy, score_left, score_right
    ball_x += ball_dx
    ball_y += ball_dy
    if ball_y in (0, HEIGHT - 1):
        ball_dy = -ball_dy
    if ball_x <= 0:
        score_right += 1
        reset_ball(1)
    elif ball_x >= WIDTH:
        score_left += 1
        reset_ball(-1)

def update_paddles():
    global paddle_left, paddle_right
    paddle_left += random.choice((-1, 0, 1))
    paddle_right = max(0, min(HEIGHT - 1, ball_y))

def draw():
    for y in range(HEIGHT):
        print("".join("o" if (x, y) == (ball_x, ball_y) else "|" if x == 0 and y == paddle_left else " " for x in range(WIDTH)))

random.seed(4)
frame = 0
while running:
    update_ball()
    update_paddles()
    if frame % 10 == 0:
        draw()
    frame += 1
    if score_left + score_right >= 4:
        running = False
print(score_left, score_right, frame, math.hypot(ball_x, ball_y))
