import pygame

from cart import Cart
from constants import HEIGHT, IRON, NIGHT, WIDTH


class LampsApp:
    def __init__(self):
        pygame.init()
        self._screen = pygame.display.set_mode((WIDTH, HEIGHT))
        self._clock = pygame.time.Clock()
        self._cart = Cart(20, 80, (120, 40, 40))

    def run(self):
        running = True
        while running:
            for event in pygame.event.get():
                if event.type == pygame.QUIT:
                    running = False
                elif event.type == pygame.KEYDOWN:
                    self._handle_keydown(event)
            self._draw()
            self._clock.tick(30)
        pygame.quit()

    def _handle_keydown(self, event):
        if event.key == pygame.K_LEFT:
            self._cart.move_left()
        elif event.key == pygame.K_RIGHT:
            self._cart.move_right()
        elif event.key == pygame.K_SPACE:
            self._cart.toggle_lamp()

    def _draw(self):
        self._screen.fill(NIGHT)
        pygame.draw.line(self._screen, IRON, (0, 108), (WIDTH, 108), 2)
        self._cart.draw(self._screen)
        pygame.display.flip()
