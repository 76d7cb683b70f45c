// The Brindlebeck loop line: three trams on their loops, one signal.

final int TRACK = 120;
color rail = #604020;

float tram1X = 20, tram1Speed = 1.5;
boolean tram1Open = false;
int tram1Riders;

float tram2X = 180, tram2Speed = -1;
boolean tram2Open = false;
int tram2Riders;

float tram3X = 300, tram3Speed = 2.25;
boolean tram3Open = false;
int tram3Riders;

boolean signalGo = true;
int fareTickets = 0;
int fareBox = 0;

void setup() {
  size(400, 200);
  textSize(10);
}

void draw() {
  background(230);
  drawTrack();
  moveTram1();
  moveTram2();
  moveTram3();
  drawTram(tram1X, tram1Open, tram1Riders);
  drawTram(tram2X, tram2Open, tram2Riders);
  drawTram(tram3X, tram3Open, tram3Riders);
  showFares();
}

// a tram that leaves the picture comes back on the other side
void moveTram1() {
  if (!tram1Open && signalGo) {
    tram1X = (tram1X + tram1Speed + width) % width;
  }
}

void moveTram2() {
  if (!tram2Open && signalGo) {
    tram2X = (tram2X + tram2Speed + width) % width;
  }
}

void moveTram3() {
  if (!tram3Open && signalGo) {
    tram3X = (tram3X + tram3Speed + width) % width;
  }
}

void boardTram1() {
  tram1Open = !tram1Open;
  if (tram1Open) {
    tram1Riders += int(random(4));
  }
}

void boardTram2() {
  tram2Open = !tram2Open;
  if (tram2Open) {
    tram2Riders += int(random(4));
  }
}

void boardTram3() {
  tram3Open = !tram3Open;
  if (tram3Open) {
    tram3Riders += int(random(4));
  }
}

void drawTram(float x, boolean open, int riders) {
  fill(open ? #E0B040 : #306090);
  rect(x, TRACK - 14, 28, 14);
  fill(255);
  text(str(riders), x + 10, TRACK - 4);
}
