// Reeds on the bank grow toward the light (the mouse).

Reed reed;

void setup() {
  size(300, 200);
  reed = new Reed(height - 10);
}

void draw() {
  background(210, 225, 235);

  reed.update();

  reed.show();
}
