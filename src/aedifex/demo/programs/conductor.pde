// What the conductor does.

void drawTrack() {
  stroke(rail);
  line(0, TRACK, width, TRACK);
  fill(signalGo ? color(0, 160, 0) : color(200, 0, 0));
  ellipse(width / 2, 20, 10, 10);
}

void collectFares(int price) {
  int riders = tram1Riders + tram2Riders + tram3Riders;
  fareTickets += riders;
  fareBox += riders * price;
}

void showFares() {
  fill(0);
  text(fareTickets + " tickets, " + fareBox + " pence", 10, 190);
}

void keyPressed() {
  if (key == '1') {
    boardTram1();
  } else if (key == '2') {
    boardTram2();
  } else if (key == '3') {
    boardTram3();
  } else if (key == 's') {
    signalGo = !signalGo;
  } else if (key == 'c') {
    collectFares(3);
  }
}
