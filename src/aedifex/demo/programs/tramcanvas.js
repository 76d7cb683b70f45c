// The Brindlebeck tram line on a canvas: two trams, one signal, passengers at the stops.
const canvas = document.getElementById("line");
const ctx = canvas.getContext("2d");
const LENGTH = 480;
const TRACK = 90;
const STOPS = [60, 200, 340, 440];

// first tram
let tram1X = 40;
let tram1Speed = 1.5;
let tram1Open = false;
let tram1Riders = 0;

// second tram
let tram2X = 400, tram2Speed = -1;
let tram2Open = false;
let tram2Riders = 0;

let signal = "go";
let frames = 0;

let fareTickets = 0;
let fareBox = 0;

function moveTram1(dt) {
  if (!tram1Open && signal === "go") {
    tram1X += tram1Speed * dt;
  }
  if (tram1X >= LENGTH - 20 || tram1X <= 0) {
    tram1Speed = -tram1Speed; // turn round at the end of the line
  }
}

function moveTram2(dt) {
  if (!tram2Open && signal === "go") {
    tram2X += tram2Speed * dt;
  }
  if (tram2X >= LENGTH - 20 || tram2X <= 0) {
    tram2Speed = -tram2Speed;
  }
}

function boardTram1() {
  tram1Open = !tram1Open;
  if (tram1Open) {
    tram1Riders += Math.floor(Math.random() * 4);
  }
}

function boardTram2() {
  tram2Open = !tram2Open;
  if (tram2Open) {
    tram2Riders += Math.floor(Math.random() * 4);
  }
}

function drawTram(x, open, riders) {
  ctx.fillStyle = open ? "#e0b040" : "#306090";
  ctx.fillRect(x, TRACK - 14, 28, 14);
  ctx.fillStyle = "white";
  ctx.fillText(String(riders), x + 10, TRACK - 4);
}

function collectFares(price) {
  fareTickets += tram1Riders + tram2Riders;
  fareBox += (tram1Riders + tram2Riders) * price;
}

function showFares() {
  document.getElementById("fares").textContent = `${fareTickets} tickets, ${fareBox} pence`;
}

function drawLine() {
  ctx.clearRect(0, 0, LENGTH, 120);
  ctx.fillStyle = signal === "go" ? "green" : "red";
  ctx.fillRect(LENGTH / 2, 20, 8, 8);
  for (const stop of STOPS) {
    ctx.fillRect(stop, TRACK, 4, 10);
  }
}

function loop() {
  const dt = frames % 2 ? 0.5 : 1;
  moveTram1(dt);
  moveTram2(dt);
  drawLine();
  drawTram(tram1X, tram1Open, tram1Riders);
  drawTram(tram2X, tram2Open, tram2Riders);
  frames += 1;
  requestAnimationFrame(loop);
}

document.addEventListener("keydown", (event) => {
  if (event.key === "1") {
    boardTram1();
  } else if (event.key === "2") {
    boardTram2();
  } else if (event.key === "s") {
    signal = signal === "go" ? "stop" : "go";
  } else if (event.key === "c") {
    collectFares(3);
    showFares();
  }
});

requestAnimationFrame(loop);
