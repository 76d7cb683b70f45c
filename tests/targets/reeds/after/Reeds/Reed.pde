class Reed {
  float[] reeds;
  float y;

  Reed(float y) {
    this.y = y;
    reeds = new float[20];
    for (int i = 0; i < reeds.length; i++) {
      reeds[i] = 10;
    }
  }

  void update() {
    // each grows while the light is near
    for (int i = 0; i < reeds.length; i++) {
      if (abs(mouseX - i * 15) < 30) {
        reeds[i] += 0.5;
      }
    }
  }

  void show() {
    // stems
    stroke(60, 110, 60);
    for (int i = 0; i < reeds.length; i++) {
      line(i * 15, y, i * 15, y - reeds[i]);
    }
  }
}
