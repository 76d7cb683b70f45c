# Brindlebeck trams, the window version
# RIGHT / LEFT: drive   SPACE: doors   s: signal   click on the line: a passenger waits there
import random

import pygame

pygame.init()

WIDTH = 480
HEIGHT = 200
TRACK_Y = 120
SKY = (206, 224, 238)
GRASS = (150, 184, 130)
RAIL = (90, 84, 80)
STOPS = [60, 180, 300, 420]

screen = pygame.display.set_mode((WIDTH, HEIGHT))
pygame.display.set_caption("Brindlebeck")
clock = pygame.time.Clock()

# the tram
tram_x = 60.0
tram_speed = 0.0
tram_doors_open = False
tram_riders = 0
tram_color = (180, 60, 50)

# the signal
signal_green = True
signal_x = 250
signal_switched = 0

# people at the stops
waiting_places = []
waiting_left_behind = 0

score = 0


def push_tram(amount):
    global tram_speed
    if not tram_doors_open:
        tram_speed = max(-4.0, min(4.0, tram_speed + amount))


def toggle_tram_doors():
    global tram_doors_open, tram_speed
    if abs(tram_speed) < 0.5:
        tram_speed = 0.0
        tram_doors_open = not tram_doors_open


def move_tram(dt):
    global tram_x, tram_speed
    if tram_x < signal_x <= tram_x + tram_speed * dt * 30 and not signal_green:
        tram_speed = 0.0
    tram_x += tram_speed * dt * 30
    if tram_x < 20 or tram_x > WIDTH - 20:
        tram_speed = -tram_speed / 2
        tram_x = max(20.0, min(tram_x, WIDTH - 20.0))
    tram_speed *= 0.98


def draw_tram():
    body = pygame.Rect(int(tram_x) - 22, TRACK_Y - 30, 44, 24)
    pygame.draw.rect(screen, tram_color, body, border_radius=4)
    for i in range(3):
        pane = pygame.Rect(body.x + 5 + i * 13, body.y + 4, 9, 9)
        pygame.draw.rect(screen, (250, 240, 190) if i < tram_riders else (70, 70, 80), pane)
    if tram_doors_open:
        pygame.draw.rect(screen, (30, 30, 30), (body.x + 17, body.y + 8, 10, 16))
    for wheel in (body.x + 9, body.x + 35):
        pygame.draw.circle(screen, RAIL, (wheel, TRACK_Y - 4), 4)


def switch_signal():
    global signal_green, signal_switched
    signal_green = not signal_green
    signal_switched += 1


def draw_signal():
    pygame.draw.line(screen, RAIL, (signal_x, TRACK_Y), (signal_x, TRACK_Y - 60), 3)
    lamp = (40, 160, 70) if signal_green else (200, 40, 40)
    pygame.draw.circle(screen, lamp, (signal_x, TRACK_Y - 64), 7)


def add_waiting(x):
    if len(waiting_places) < 6:
        waiting_places.append(x)


def board_waiting(x):
    global waiting_left_behind
    near = [place for place in waiting_places if abs(place - x) < 40]
    for place in near:
        if random.random() < 0.8:
            waiting_places.remove(place)
        else:
            waiting_left_behind += 1
    return len(near)


def draw_waiting():
    for place in waiting_places:
        pygame.draw.circle(screen, (60, 60, 120), (place, TRACK_Y - 44), 4)
        pygame.draw.line(screen, (60, 60, 120), (place, TRACK_Y - 40), (place, TRACK_Y - 30), 2)


running = True
while running:
    dt = clock.tick(30) / 1000
    for event in pygame.event.get():
        if event.type == pygame.QUIT:
            running = False
        elif event.type == pygame.KEYDOWN:
            if event.key == pygame.K_SPACE:
                toggle_tram_doors()
                if tram_doors_open:
                    boarded = board_waiting(tram_x)
                    tram_riders += boarded
                    score += 3 * boarded
            elif event.key == pygame.K_s:
                switch_signal()
        elif event.type == pygame.MOUSEBUTTONDOWN:
            add_waiting(event.pos[0])
    keys = pygame.key.get_pressed()
    if keys[pygame.K_RIGHT]:
        push_tram(0.4)
    if keys[pygame.K_LEFT]:
        push_tram(-0.4)
    move_tram(dt)
    screen.fill(SKY)
    pygame.draw.rect(screen, GRASS, (0, TRACK_Y + 6, WIDTH, HEIGHT - TRACK_Y))
    pygame.draw.line(screen, RAIL, (0, TRACK_Y), (WIDTH, TRACK_Y), 3)
    for stop in STOPS:
        pygame.draw.rect(screen, (120, 110, 160), (stop - 2, TRACK_Y + 4, 4, 18))
    draw_signal()
    draw_waiting()
    draw_tram()
    pygame.display.flip()

print("riders", tram_riders, "score", score, "left behind", waiting_left_behind)
pygame.quit()
