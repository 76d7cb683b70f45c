// Reeds on the bank grow toward the light (the mouse).

float[] reeds;
float reedY;

void setup() {
  size(300, 200);
  reedY = height - 10;
  reeds = new float[20];
  for (int i = 0; i < reeds.length; i++) {
    reeds[i] = 10;
  }
}

void draw() {
  background(210, 225, 235);

  // each grows while the light is near
  for (int i = 0; i < reeds.length; i++) {
    if (abs(mouseX - i * 15) < 30) {
      reeds[i] += 0.5;
    }
  }

  // stems
  stroke(60, 110, 60);
  for (int i = 0; i < reeds.length; i++) {
    line(i * 15, reedY, i * 15, reedY - reeds[i]);
  }
}
