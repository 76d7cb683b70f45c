const fs = require("fs");

const WIDTH = 40;

let gate1Angle = 0;
let gate1Step = 15;
let gate1Shut = false;
let gate2Angle = 90;
let gate2Step = -10;
let gate2Shut = false;
let lamp = "green";
let waiting = 0;

function turnGate1(turns) {
  if (!gate1Shut && lamp === "green") {
    gate1Angle += gate1Step * turns;
  }
  if (gate1Angle >= WIDTH * 2 || gate1Angle <= 0) {
    gate1Step = -gate1Step; // swing back
  }
}

function turnGate2(turns) {
  if (!gate2Shut && lamp === "green") {
    gate2Angle += gate2Step * turns;
  }
  if (gate2Angle >= WIDTH * 2 || gate2Angle <= 0) {
    gate2Step = -gate2Step; // swing back
  }
}

function drawGate(row, angle, isShut) {
  row[Math.min(WIDTH - 1, Math.floor(angle / 3))] = isShut ? "X" : "/";
}

// the morning
let round = 0;
for (const line of fs.readFileSync(0, "utf8").split("\n")) {
  const key = line.trim();
  if (key === "q") {
    break;
  }
  if (key === "1") {
    gate1Shut = !gate1Shut;
    if (gate1Shut) {
      waiting += 2;
    }
  } else if (key === "2") {
    gate2Shut = !gate2Shut;
    if (gate2Shut) {
      waiting += 2;
    }
  } else if (key === "l") {
    lamp = lamp === "green" ? "red" : "green";
  }
  const turns = round % 2 ? 1 : 2;
  turnGate1(turns);
  turnGate2(turns);
  const row = new Array(WIDTH).fill(".");
  drawGate(row, gate1Angle, gate1Shut);
  drawGate(row, gate2Angle, gate2Shut);
  console.log(row.join(""), lamp, waiting);
  round += 1;
}
console.log("waited", waiting);
