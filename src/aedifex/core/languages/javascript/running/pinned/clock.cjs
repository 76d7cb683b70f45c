// A clock that starts at a fixed instant and moves only when the program asks for it (a little) or waits (by what it waits).
// Timers run in the order of their time, as soon as nothing else is left to do.
"use strict";

const START = 1_700_000_000_000; // milliseconds; an arbitrary instant
const TICK = 1; // milliseconds that pass whenever the clock is read

let now = 0;
let number = 0;
let pumping = false;
const queue = new Map();
const real = { setImmediate: globalThis.setImmediate, setTimeout: globalThis.setTimeout, clearTimeout: globalThis.clearTimeout };
const turns = { over: () => {}, busy: () => false };

function read() {
  now += TICK;
  return now;
}

function pinDate() {
  const Real = Date;
  class Pinned extends Real {
    constructor(...args) {
      super(...(args.length ? args : [START + read()]));
    }
    static now() {
      return START + read();
    }
  }
  globalThis.Date = new Proxy(Pinned, { apply: () => new Pinned().toString() });
  Object.defineProperty(Pinned, "name", { value: "Date" });
  Object.defineProperty(Pinned.prototype, "constructor", { value: globalThis.Date, writable: true, configurable: true });
  Object.defineProperty(performance, "now", { value: read, configurable: true, writable: true });
  const hrtime = (since) => {
    const at = read();
    const found = [Math.floor(at / 1000), (at % 1000) * 1e6];
    if (!since) return found;
    const left = (found[0] - since[0]) * 1e9 + found[1] - since[1];
    return [Math.floor(left / 1e9), left % 1e9];
  };
  hrtime.bigint = () => BigInt(read()) * 1000000n;
  process.hrtime = hrtime;
  process.uptime = () => read() / 1000;
}

class Timer {
  constructor(id) {
    this.id = id;
  }
  ref() {
    return this;
  }
  unref() {
    const entry = queue.get(this.id);
    if (entry) entry.idle = true;
    return this;
  }
  hasRef() {
    return true;
  }
  refresh() {
    const entry = queue.get(this.id);
    if (entry) entry.at = now + entry.every;
    return this;
  }
  close() {
    queue.delete(this.id);
    return this;
  }
  [Symbol.toPrimitive]() {
    return this.id;
  }
}

function add(call, delay, args, repeat, frame = false) {
  if (typeof call !== "function") throw new TypeError("The callback must be a function");
  const every = Math.max(1, Number(delay) || 0);
  number += 1;
  queue.set(number, { at: now + every, call, args, every, repeat, frame, order: number });
  pump();
  return new Timer(number);
}

function clear(timer) {
  queue.delete(timer instanceof Timer ? timer.id : Number(timer));
}

// Run the next timer when input and files have nothing more to say.
function pump() {
  if (pumping) return;
  pumping = true;
  real.setImmediate(step);
}

function step() {
  pumping = false;
  if (![...queue.values()].some((e) => !e.idle)) return;
  if (turns.busy()) {
    pumping = true;
    real.setTimeout(step, 1);
    return;
  }
  let next = null;
  for (const [id, entry] of queue) {
    if (next === null || entry.at < next[1].at || (entry.at === next[1].at && entry.order < next[1].order)) next = [id, entry];
  }
  const [id, entry] = next;
  now = Math.max(now, entry.at);
  if (entry.repeat) {
    entry.at = now + entry.every;
    number += 1;
    entry.order = number;
  } else queue.delete(id);
  pump();
  turns.before && turns.before();
  if (entry.repeat || queue.get(id) === undefined) entry.call(...(entry.frame ? [now] : entry.args));
  turns.over("wait");
}

function pin() {
  pinDate();
  globalThis.setTimeout = (call, delay, ...args) => add(call, delay, args, false);
  globalThis.setInterval = (call, delay, ...args) => add(call, delay, args, true);
  globalThis.clearTimeout = globalThis.clearInterval = clear;
  const promised = (delay, value) => new Promise((done) => add(() => done(value), delay, [], false));
  globalThis.setTimeout[Symbol.for("nodejs.util.promisify.custom")] = promised;
  const timers = require("timers");
  Object.assign(timers, { setTimeout: globalThis.setTimeout, setInterval: globalThis.setInterval, clearTimeout: clear, clearInterval: clear });
  require("timers/promises").setTimeout = promised;
}

function frame(call) {
  return add(call, 1000 / 60, [], false, true).id;
}

// Time passes while nothing else happens, as in a wait that blocks.
function pass(milliseconds) {
  now += milliseconds;
}

module.exports = { pin, read, frame, clear, pass, turns, real };
