import pygame

WIDTH = 320
HEIGHT = 120
STEP = 4

NIGHT = (16, 18, 40)
LIGHT = (255, 230, 150)
IRON = (70, 70, 80)


def draw_cart():
    # a box on two wheels
    pygame.draw.rect(screen, paint, (x, y, 40, 20))
    pygame.draw.circle(screen, IRON, (x + 8, y + 22), 5)
    pygame.draw.circle(screen, IRON, (x + 32, y + 22), 5)
    if lamp_lit:
        pygame.draw.circle(screen, LIGHT, (x + 40, y + 6), 4)


pygame.init()
screen = pygame.display.set_mode((WIDTH, HEIGHT))
clock = pygame.time.Clock()

x = 20
y = 80
paint = (120, 40, 40)
lamp_lit = False

running = True
while running:
    for event in pygame.event.get():
        if event.type == pygame.QUIT:
            running = False
        elif event.type == pygame.KEYDOWN:
            if event.key == pygame.K_LEFT:
                # not off the rails
                if x > 0:
                    x -= STEP
            elif event.key == pygame.K_RIGHT:
                if x < WIDTH - 40:
                    x += STEP
            elif event.key == pygame.K_SPACE:
                lamp_lit = not lamp_lit
    screen.fill(NIGHT)
    pygame.draw.line(screen, IRON, (0, 108), (WIDTH, 108), 2)
    draw_cart()
    pygame.display.flip()
    clock.tick(30)
pygame.quit()
