// A stand-in for a page: elements that are made when asked for, a canvas that records what is drawn, and events from the plan.
// One frame or timer is one turn; what was drawn and shown in it is one shot.
"use strict";

const fs = require("fs");
const path = require("path");
const clock = require("./clock.cjs");
const log = require("./log.cjs");
const values = require("./values.cjs");

const KEYS = { LEFT: "ArrowLeft", RIGHT: "ArrowRight", UP: "ArrowUp", DOWN: "ArrowDown", SPACE: " ", RETURN: "Enter", ENTER: "Enter", ESCAPE: "Escape", ESC: "Escape", TAB: "Tab", BACKSPACE: "Backspace", DELETE: "Delete", SHIFT: "Shift" };
const CODES = { ArrowLeft: 37, ArrowUp: 38, ArrowRight: 39, ArrowDown: 40, " ": 32, Enter: 13, Escape: 27, Tab: 9, Backspace: 8, Delete: 46, Shift: 16 };
const LONG = 4000; // characters of a shot

const elements = new Map();
const listeners = new Map(); // target → type → calls
const drawn = []; // what was asked of the stand-ins in this turn
let events = [];
let pin = null;
let shots = 0;
let page = "";

function record(text) {
  if (drawn.length < 20000) drawn.push(text);
}

function shown(args) {
  return args.map((a) => (typeof a === "number" ? String(Math.round(a * 1e6) / 1e6) : a instanceof Element ? a.called() : values.tell(a))).join(", ");
}

// -- elements ----------------------------------------------------------------------------------

class Target {
  addEventListener(type, call) {
    if (!listeners.has(this)) listeners.set(this, new Map());
    const calls = listeners.get(this);
    if (!calls.has(type)) calls.set(type, []);
    if (!calls.get(type).includes(call)) calls.get(type).push(call);
  }
  removeEventListener(type, call) {
    const calls = listeners.get(this)?.get(type);
    if (calls && calls.includes(call)) calls.splice(calls.indexOf(call), 1);
  }
  dispatchEvent(event) {
    fire(this, event.type, event);
    return true;
  }
}

function fire(target, type, fields) {
  const event = { type, target, currentTarget: target, preventDefault() {}, stopPropagation() {}, ...fields };
  const own = target["on" + type];
  if (typeof own === "function") own.call(target, event);
  for (const call of [...(listeners.get(target)?.get(type) || [])]) {
    typeof call === "function" ? call.call(target, event) : call.handleEvent(event);
  }
}

class Element extends Target {
  constructor(tag, id = "") {
    super();
    this.tagName = tag.toUpperCase();
    this.id = id;
    this.children = [];
    this.style = watched(`${tag}${id && "#" + id}.style`);
    this.dataset = {};
    this.value = "";
    this.checked = false;
    this.width = 300;
    this.height = 150;
    this.parentNode = null;
    const classes = new Set();
    const say = () => record(`${this.called()}.class = ${[...classes].join(" ")}`);
    this.classList = {
      add: (...names) => (names.forEach((n) => classes.add(n)), say()),
      remove: (...names) => (names.forEach((n) => classes.delete(n)), say()),
      toggle: (n, on = !classes.has(n)) => (on ? classes.add(n) : classes.delete(n), say(), on),
      contains: (n) => classes.has(n),
    };
    for (const name of ["textContent", "innerHTML", "innerText", "title", "disabled", "hidden", "className", "src"]) {
      let held = name === "disabled" || name === "hidden" ? false : "";
      Object.defineProperty(this, name, { get: () => held, set: (v) => ((held = typeof v === "boolean" ? v : String(v)), record(`${this.called()}.${name} = ${values.tell(held)}`)), enumerable: true });
    }
  }
  called() {
    return this.tagName.toLowerCase() + (this.id ? "#" + this.id : "");
  }
  appendChild(child) {
    record(`${this.called()} gets ${child.called ? child.called() : "text"}`);
    this.children.push(child);
    child.parentNode = this;
    if (child.id) elements.set(child.id, child);
    return child;
  }
  append(...children) {
    for (const child of children) this.appendChild(typeof child === "string" ? new Element("text") : child);
  }
  removeChild(child) {
    this.children = this.children.filter((c) => c !== child);
    record(`${this.called()} loses ${child.called()}`);
    return child;
  }
  replaceChildren(...children) {
    this.children = [];
    this.append(...children);
  }
  remove() {
    if (this.parentNode) this.parentNode.removeChild(this);
  }
  setAttribute(name, value) {
    this[name === "class" ? "className" : name] = value;
  }
  getAttribute(name) {
    return this[name === "class" ? "className" : name] ?? null;
  }
  getBoundingClientRect() {
    return { left: 0, top: 0, x: 0, y: 0, width: this.width, height: this.height, right: this.width, bottom: this.height };
  }
  querySelector(selector) {
    return find(selector);
  }
  querySelectorAll(selector) {
    const found = find(selector);
    return found ? [found] : [];
  }
  focus() {}
  blur() {}
  click() {
    fire(this, "click", { offsetX: 0, offsetY: 0, clientX: 0, clientY: 0 });
  }
  getContext(kind) {
    if (!this.context) this.context = context(this);
    return kind === "2d" ? this.context : null;
  }
  toDataURL() {
    return "data:,";
  }
}

function watched(name) {
  return new Proxy({}, {
    set(target, key, value) {
      target[key] = value;
      record(`${name}.${String(key)} = ${values.tell(value)}`);
      return true;
    },
    get: (target, key) => (key === "setProperty" ? (k, v) => record(`${name}.${k} = ${v}`) : target[key] ?? ""),
  });
}

function context(canvas) {
  const held = { canvas, fillStyle: "#000000", strokeStyle: "#000000", lineWidth: 1, font: "10px sans-serif", globalAlpha: 1, textAlign: "start", textBaseline: "alphabetic" };
  const answers = {
    measureText: (text) => ({ width: String(text).length * 6 }),
    getImageData: (x, y, w, h) => ({ width: w, height: h, data: new Uint8ClampedArray(w * h * 4) }),
    createImageData: (w, h) => ({ width: w, height: h, data: new Uint8ClampedArray(w * h * 4) }),
    createLinearGradient: () => ({ addColorStop: (...args) => record(`addColorStop(${shown(args)})`) }),
    createRadialGradient: () => ({ addColorStop: (...args) => record(`addColorStop(${shown(args)})`) }),
    createPattern: () => ({}),
    getLineDash: () => [],
    isPointInPath: () => false,
  };
  const calls = {};
  return new Proxy(held, {
    get(target, key) {
      if (key in target || typeof key === "symbol") return target[key];
      if (key === "then") return undefined;
      calls[key] ??= (...args) => {
        record(`${key}(${shown(args)})`);
        return answers[key]?.(...args);
      };
      return calls[key];
    },
    set(target, key, value) {
      if (target[key] !== value) record(`${String(key)} = ${typeof value === "object" ? "<paint>" : values.tell(value)}`);
      target[key] = value;
      return true;
    },
  });
}

function find(selector) {
  const id = /#([\w-]+)/.exec(selector);
  if (id) return document.getElementById(id[1]);
  const tag = /^[a-z]\w*/i.exec(selector);
  if (tag && tag[0] === "body") return document.body;
  const known = [...elements.values()].find((e) => tag && e.tagName === tag[0].toUpperCase());
  if (known) return known;
  const key = "\0" + selector;
  if (!elements.has(key)) elements.set(key, new Element(tag ? tag[0] : "div"));
  return elements.get(key);
}

// -- the page ------------------------------------------------------------------------------------

function pages(entry) {
  const folder = path.dirname(entry) || ".";
  const name = path.basename(entry);
  return fs.readdirSync(folder).filter((f) => /\.html?$/.test(f)).map((f) => path.join(folder, f)).filter((f) => fs.readFileSync(f, "utf-8").includes(name)).sort();
}

// The scripts of the page that names the entry, in its order; the entry alone if no page does.
function scripts(entry) {
  const found = pages(entry)[0];
  if (found === undefined) return [entry];
  const names = [...fs.readFileSync(found, "utf-8").matchAll(/<script[^>]*\bsrc=["']([^"':]+)["']/g)].map((m) => path.join(path.dirname(found), m[1]));
  return names.filter((f) => fs.existsSync(f));
}

function begin(given, entry) {
  pin = given;
  events = [...((pin.plan && pin.plan.events) || [])].sort((a, b) => a.turn - b.turn);
  const found = pages(entry)[0];
  page = found ? fs.readFileSync(found, "utf-8") : "";
  globalThis.__aedifex_standins = new Set(["Element", "Target", "Document", "Timer"]);
  const make = (tag, id) => {
    const element = new Element(tag, id);
    if (id) elements.set(id, element);
    return element;
  };
  for (const match of page.matchAll(/<(\w+)([^>]*)\bid=["']([\w-]+)["']([^>]*)>/g)) {
    const element = make(match[1], match[3]);
    for (const side of ["width", "height"]) {
      const size = new RegExp(`\\b${side}=["']?(\\d+)`).exec(match[2] + match[4]);
      if (size) element[side] = Number(size[1]);
    }
    const value = /\bvalue=["']([^"']*)["']/.exec(match[2] + match[4]);
    if (value) element.value = value[1];
  }
  class Document extends Target {}
  const document = Object.assign(new Document(), {
    body: make("body", ""), head: make("head", ""), documentElement: make("html", ""), readyState: "loading", title: "", hidden: false, cookie: "",
    getElementById: (id) => elements.get(id) ?? (page ? null : make(/canvas/i.test(id) ? "canvas" : "div", id)),
    createElement: (tag) => new Element(tag), createTextNode: () => new Element("text"), querySelector: find,
    querySelectorAll: (s) => [find(s)].filter(Boolean), getElementsByTagName: (t) => [find(t)], getElementsByClassName: () => [],
  });
  const stored = new Map();
  const storage = { getItem: (k) => stored.get(String(k)) ?? null, setItem: (k, v) => (stored.set(String(k), String(v)), record(`stored ${k} = ${v}`)), removeItem: (k) => stored.delete(String(k)), clear: () => stored.clear() };
  const define = (name, value) => Object.defineProperty(globalThis, name, { value, writable: true, configurable: true });
  const say = (name, answer) => (text) => (record(`${name}(${values.tell(text)})`), answer);
  Object.entries({
    window: globalThis, self: globalThis, document, localStorage: storage, sessionStorage: storage, innerWidth: 800, innerHeight: 600, devicePixelRatio: 1,
    alert: say("alert", undefined), confirm: say("confirm", true), prompt: say("prompt", ""), screen: { width: 800, height: 600 },
    navigator: { userAgent: "stand-in", language: "en" }, location: { href: "page", search: "", hash: "", reload() {} },
    Image: class Image extends Element { constructor() { super("img"); this.complete = true; } }, Audio: class Audio extends Element { constructor() { super("audio"); } play() { record("play()"); return Promise.resolve(); } pause() {} load() {} },
    requestAnimationFrame: (call) => clock.frame(call), cancelAnimationFrame: clock.clear, getComputedStyle: (e) => e.style,
    addEventListener: (t, c) => Target.prototype.addEventListener.call(globalThis, t, c), removeEventListener: (t, c) => Target.prototype.removeEventListener.call(globalThis, t, c),
    HTMLElement: Element, Event: class Event { constructor(type, given) { Object.assign(this, { type }, given); } },
  }).forEach(([name, value]) => define(name, value));
  const texts = scripts(entry).map((f) => fs.readFileSync(f, "utf-8")).join("\n");
  // a library for sketches calls setup and draw by their names: nobody in the script does
  const waits = (name) => new RegExp(`function\\s+${name}\\s*\\(`).test(texts) && texts.match(new RegExp(`\\b${name}\\b`, "g")).length === 1;
  if (/\bcreateCanvas\(/.test(texts) || waits("setup") || waits("draw")) require("./drawing.cjs").library(record, shown);
  clock.turns.before = give;
  const next = clock.turns.over;
  clock.turns.over = () => {
    shot();
    next("frame");
  };
}

function loaded() {
  document.readyState = "complete";
  require("./drawing.cjs").begin(record, shown, pin);
  fire(document, "DOMContentLoaded", {});
  fire(globalThis, "load", {});
  shot();
  pin.over("frame");
  if (events.length) clock.frame(keepUp);
}

// Frames go by until the last event has come, though the page asks for none.
function keepUp() {
  if (events.length) clock.frame(keepUp);
}

function shot() {
  if (drawn.length === 0) return;
  shots += 1;
  const text = drawn.join("\n");
  drawn.length = 0;
  log.note("shot", `frame ${pin.turn()}`, text.length <= LONG ? text : `${text.slice(0, LONG)}... (${text.length}, ${values.checksum(text)})`);
}

// -- events --------------------------------------------------------------------------------------

function give() {
  while (events.length && events[0].turn <= pin.turn()) {
    const event = events.shift();
    if (event.quit) pin.end("the page was closed");
    else if (event.key !== undefined) press(event);
    else if (event.click) point(event.click, event.button || 1);
    else if (event.move) mouse("mousemove", event.move, 1);
    else if (event.text !== undefined) [...event.text].forEach((c) => press({ key: c }));
    else if (event.control !== undefined) control(event);
  }
}

function press(event) {
  const key = KEYS[event.key.toUpperCase()] ?? (event.key.length === 1 ? event.key : event.key);
  const code = /^[a-z]$/i.test(key) ? "Key" + key.toUpperCase() : key === " " ? "Space" : /^\d$/.test(key) ? "Digit" + key : key;
  const fields = { key, code, keyCode: CODES[key] ?? key.toUpperCase().charCodeAt(0), repeat: false };
  const kinds = event.press === undefined ? ["keydown", "keypress", "keyup"] : event.press ? ["keydown", "keypress"] : ["keyup"];
  for (const kind of kinds) {
    require("./drawing.cjs").key(kind, fields);
    fire(document, kind, fields);
    fire(globalThis, kind, fields);
  }
}

function point([x, y], button) {
  for (const kind of ["mousedown", "pointerdown", "mouseup", "pointerup", "click"]) mouse(kind, [x, y], button);
}

function mouse(kind, [x, y], button) {
  const fields = { clientX: x, clientY: y, offsetX: x, offsetY: y, pageX: x, pageY: y, button: button - 1, buttons: 1 };
  require("./drawing.cjs").mouse(kind, fields);
  const canvas = [...elements.values()].find((e) => e.tagName === "CANVAS");
  if (canvas) fire(canvas, kind, fields);
  fire(document, kind, fields);
  fire(globalThis, kind, fields);
}

function control({ control: name, value }) {
  const wanted = [...elements.entries()].find(([id, e]) => id === name || e.textContent === name || e.value === name);
  const label = new RegExp(`id=["']([\\w-]+)["'][^>]*>\\s*${name.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}\\s*<`).exec(page);
  const element = wanted ? wanted[1] : label ? elements.get(label[1]) : null;
  if (!element) return log.note("trouble", `there is no control '${name}' on the page`);
  if (value !== undefined) {
    element.value = value;
    fire(element, "input", {});
    fire(element, "change", {});
  } else element.click();
}

module.exports = { begin, scripts, loaded };
