import pygame

from constants import IRON, LIGHT, STEP, WIDTH


class Cart:
    def __init__(self, x, y, paint):
        self._x = x
        self._y = y
        self._paint = paint
        self._lamp_lit = False

    def move_left(self):
        # not off the rails
        if self._x > 0:
            self._x -= STEP

    def move_right(self):
        if self._x < WIDTH - 40:
            self._x += STEP

    def toggle_lamp(self):
        self._lamp_lit = not self._lamp_lit

    def draw(self, screen):
        # a box on two wheels
        pygame.draw.rect(screen, self._paint, (self._x, self._y, 40, 20))
        pygame.draw.circle(screen, IRON, (self._x + 8, self._y + 22), 5)
        pygame.draw.circle(screen, IRON, (self._x + 32, self._y + 22), 5)
        if self._lamp_lit:
            pygame.draw.circle(screen, LIGHT, (self._x + 40, self._y + 6), 4)
