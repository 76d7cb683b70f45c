// A stand-in for a drawing library in its global mode: setup() once, draw() for each frame, every drawing call recorded.
"use strict";

const clock = require("./clock.cjs");

const CALLS = `background fill noFill stroke noStroke strokeWeight strokeJoin strokeCap rect ellipse circle square line triangle quad point arc text textSize
  textAlign textFont textStyle push pop translate rotate scale shearX shearY rectMode ellipseMode imageMode colorMode image beginShape vertex curveVertex
  bezierVertex endShape bezier curve smooth noSmooth cursor noCursor frameRate pixelDensity clear tint noTint angleMode blendMode resizeCanvas
  noCanvas fullscreen describe filter erase noErase`.split(/\s+/);
const CONSTANTS = { PI: Math.PI, TWO_PI: 2 * Math.PI, HALF_PI: Math.PI / 2, QUARTER_PI: Math.PI / 4, TAU: 2 * Math.PI, CENTER: "center", LEFT: "left", RIGHT: "right", TOP: "top", BOTTOM: "bottom", CORNER: "corner", CORNERS: "corners", RADIUS: "radius", CLOSE: "close", RGB: "rgb", HSB: "hsb", DEGREES: "degrees", RADIANS: "radians", BOLD: "bold", NORMAL: "normal", BASELINE: "alphabetic", P2D: "p2d", WEBGL: "webgl",
  LEFT_ARROW: 37, UP_ARROW: 38, RIGHT_ARROW: 39, DOWN_ARROW: 40, ENTER: 13, RETURN: 13, ESCAPE: 27, BACKSPACE: 8, DELETE: 46, SHIFT: 16, TAB: 9, CONTROL: 17, OPTION: 18, ALT: 18 };
const MATHS = "abs ceil floor round sqrt pow sin cos tan asin acos atan atan2 exp log max min".split(" ");

let active = false;
let looping = true;
let inside = false;
const held = new Set();

function given(name, value) {
  if (!(name in globalThis) || name === "print") Object.defineProperty(globalThis, name, { value, writable: true, configurable: true });
}

function begin(record, shown, pin) {
  const setup = globalThis.setup, draw = globalThis.draw;
  if (typeof setup !== "function" && typeof draw !== "function") return;
  active = true;
  call("preload");
  call("setup");
  if (globalThis.__canvas === undefined) globalThis.createCanvas(100, 100);
  const frame = () => {
    if (looping || inside) {
      globalThis.frameCount += 1;
      call("draw");
      globalThis.pmouseX = globalThis.mouseX;
      globalThis.pmouseY = globalThis.mouseY;
    }
    clock.frame(frame);
  };
  clock.frame(frame);
}

function call(name, ...args) {
  if (typeof globalThis[name] === "function") return globalThis[name](...args);
}

function library(record, shown) {
  for (const name of CALLS) given(name, (...args) => record(`${name}(${shown(args)})`));
  for (const [name, value] of Object.entries(CONSTANTS)) given(name, value);
  for (const name of MATHS) given(name, (...args) => Math[name](...(Array.isArray(args[0]) ? args[0] : args)));
  for (const [name, value] of Object.entries({ width: 100, height: 100, mouseX: 0, mouseY: 0, pmouseX: 0, pmouseY: 0, mouseIsPressed: false, mouseButton: "left", keyIsPressed: false, key: "", keyCode: 0, frameCount: 0, deltaTime: 1000 / 60, windowWidth: 800, windowHeight: 600, displayWidth: 800, displayHeight: 600, touches: [] })) given(name, value);
  const between = (low, high) => (Array.isArray(low) ? low[Math.floor(Math.random() * low.length)] : low === undefined ? Math.random() : high === undefined ? Math.random() * low : low + Math.random() * (high - low));
  const smooth = (...at) => {
    const mixed = at.reduce((sum, v, i) => sum + Math.floor(v * 4) * (i * 131 + 7), 0);
    return Math.abs(Math.sin(mixed * 12.9898) * 43758.5453) % 1;
  };
  class Vector {
    constructor(x = 0, y = 0, z = 0) { Object.assign(this, { x, y, z }); }
    set(x, y, z = 0) { return Object.assign(this, x instanceof Vector ? { x: x.x, y: x.y, z: x.z } : { x, y, z }); }
    copy() { return new Vector(this.x, this.y, this.z); }
    add(x, y = 0, z = 0) { const o = x instanceof Vector ? x : { x, y, z }; this.x += o.x; this.y += o.y; this.z += o.z; return this; }
    sub(x, y = 0, z = 0) { const o = x instanceof Vector ? x : { x, y, z }; this.x -= o.x; this.y -= o.y; this.z -= o.z; return this; }
    mult(n) { this.x *= n; this.y *= n; this.z *= n; return this; }
    div(n) { return this.mult(1 / n); }
    mag() { return Math.hypot(this.x, this.y, this.z); }
    normalize() { const m = this.mag(); return m ? this.div(m) : this; }
    setMag(n) { return this.normalize().mult(n); }
    limit(n) { return this.mag() > n ? this.setMag(n) : this; }
    heading() { return Math.atan2(this.y, this.x); }
    dist(o) { return Math.hypot(this.x - o.x, this.y - o.y, this.z - o.z); }
    static add(a, b) { return a.copy().add(b); }
    static sub(a, b) { return a.copy().sub(b); }
    static mult(a, n) { return a.copy().mult(n); }
    static random2D() { const a = Math.random() * 2 * Math.PI; return new Vector(Math.cos(a), Math.sin(a)); }
  }
  Object.entries({
    createCanvas: (w, h) => { globalThis.width = w; globalThis.height = h; globalThis.__canvas = document.createElement("canvas"); record(`createCanvas(${w}, ${h})`); return globalThis.__canvas; },
    random: between, randomSeed: () => {}, noiseSeed: () => {}, noise: smooth, noiseDetail: () => {}, randomGaussian: (m = 0, d = 1) => m + d * (Math.random() * 2 - 1),
    map: (v, a, b, c, d) => c + ((v - a) / (b - a)) * (d - c), constrain: (v, a, b) => Math.min(Math.max(v, a), b), lerp: (a, b, t) => a + (b - a) * t,
    dist: (a, b, c, d) => Math.hypot(c - a, d - b), mag: Math.hypot, norm: (v, a, b) => (v - a) / (b - a), sq: (v) => v * v, fract: (v) => v - Math.floor(v),
    radians: (d) => (d * Math.PI) / 180, degrees: (r) => (r * 180) / Math.PI, int: (v) => Math.trunc(Number(v)), float: Number, str: String, boolean: Boolean,
    nf: (v, l, r) => (r === undefined ? String(v).padStart(l, "0") : Number(v).toFixed(r).padStart(l + r + 1, "0")), millis: () => clock.read(), color: (...args) => `color(${args.join(",")})`, lerpColor: (a, b, t) => `mix(${a},${b},${t})`,
    red: () => 0, green: () => 0, blue: () => 0, alpha: () => 255, textWidth: (t) => String(t).length * 7, createVector: (x, y, z) => new Vector(x, y, z),
    keyIsDown: (code) => held.has(code), noLoop: () => { looping = false; }, loop: () => { looping = true; }, isLooping: () => looping, redraw: () => call("draw"),
    print: (...args) => console.log(...args), shuffle: (list) => [...list].sort(() => Math.random() - 0.5), hour: () => new Date().getHours(), minute: () => new Date().getMinutes(), second: () => new Date().getSeconds(),
    createButton: (label) => { const e = document.createElement("button"); e.textContent = label; e.position = () => e; e.mousePressed = (f) => { e.onclick = f; return e; }; return e; },
    loadImage: () => ({ width: 10, height: 10 }), loadFont: () => ({}), loadSound: () => ({ play() { record("play()"); } }), save: () => {}, saveCanvas: () => {},
  }).forEach(([name, value]) => given(name, value));
  given("p5", Object.assign(function () {}, { Vector }));
}

function key(kind, fields) {
  if (!active) return;
  globalThis.key = fields.key;
  globalThis.keyCode = fields.keyCode;
  if (kind === "keydown") {
    held.add(fields.keyCode);
    globalThis.keyIsPressed = true;
    call("keyPressed", fields);
  } else if (kind === "keypress") call("keyTyped", fields);
  else {
    held.delete(fields.keyCode);
    globalThis.keyIsPressed = held.size > 0;
    call("keyReleased", fields);
  }
}

function mouse(kind, fields) {
  if (!active) return;
  globalThis.mouseX = fields.offsetX;
  globalThis.mouseY = fields.offsetY;
  const hook = { mousedown: "mousePressed", mouseup: "mouseReleased", click: "mouseClicked", mousemove: globalThis.mouseIsPressed ? "mouseDragged" : "mouseMoved" }[kind];
  if (kind === "mousedown") globalThis.mouseIsPressed = true;
  if (kind === "mouseup") globalThis.mouseIsPressed = false;
  if (hook) call(hook, fields);
}

module.exports = { begin, key, library, mouse };
