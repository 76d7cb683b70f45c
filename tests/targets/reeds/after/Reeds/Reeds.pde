// Reeds on the bank grow toward the light (the mouse).

Reeds reeds;

void setup() {
  size(300, 200);
  reeds = new Reeds(height - 10);
}

void draw() {
  background(210, 225, 235);

  reeds.update();

  reeds.show();
}
