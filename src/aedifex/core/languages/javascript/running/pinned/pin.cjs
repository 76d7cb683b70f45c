// What a checked run gets: chance and clocks pinned, the network kept out, scripted input, and a log of what was seen.
// The plan (what to watch, when to end, which events to give) is in the file named by AEDIFEX_PLAN; only the first process has one.
"use strict";

const fs = require("fs");
const path = require("path");
const clock = require("./clock.cjs");
const log = require("./log.cjs");
const state = require("./state.cjs");

const planned = process.env.AEDIFEX_PLAN;
const plan = planned ? JSON.parse(fs.readFileSync(planned, "utf-8")) : null;
delete process.env.AEDIFEX_PLAN;
const exit = process.reallyExit.bind(process);
let turn = 1;
let coverage = null;

function pinChance() {
  let seed = 20010911;
  const next = () => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return seed / 4294967296;
  };
  Math.random = next;
  const crypto = require("crypto");
  const bytes = (size) => Buffer.from(Array.from({ length: size }, () => Math.floor(next() * 256)));
  crypto.randomBytes = (size, done) => (done ? process.nextTick(done, null, bytes(size)) : bytes(size));
  crypto.randomInt = (low, high) => (high === undefined ? Math.floor(next() * low) : low + Math.floor(next() * (high - low)));
  crypto.randomUUID = () => {
    const hex = bytes(16).toString("hex");
    return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20)}`;
  };
  const fill = (array) => {
    for (let i = 0; i < array.length; i++) array[i] = Math.floor(next() * 4294967296);
    return array;
  };
  try {
    Object.defineProperty(globalThis.crypto, "getRandomValues", { value: fill });
    Object.defineProperty(globalThis.crypto, "randomUUID", { value: crypto.randomUUID });
  } catch (error) {
    // an engine without it
  }
}

function raiseFence() {
  const net = require("net");
  const connect = net.Socket.prototype.connect;
  net.Socket.prototype.connect = function (...args) {
    const given = args[0] && typeof args[0] === "object" && !Array.isArray(args[0]) ? args[0] : Array.isArray(args[0]) ? args[0][0] : { port: args[0], host: args[1] };
    const host = String(given.host || "localhost");
    if (given.path === undefined && !/^(localhost|127\.|::1)/.test(host)) {
      log.note("note", `the network was not used: ${host} was asked for`);
      const error = Object.assign(new Error(`connect ENETUNREACH ${host}`), { code: "ENETUNREACH" });
      process.nextTick(() => this.destroy(error));
      return this;
    }
    return connect.apply(this, args);
  };
}

function over(kind) {
  state.moment(`${kind} ${turn}`);
  turn += 1;
  if (plan.turns && turn > plan.turns) end(`ended after ${plan.turns} turns`);
}

function end(reason) {
  log.note("end", reason);
  finish();
  exit(0);
}

function finish() {
  state.atEnd(turn - 1);
  tellCoverage();
  log.flush();
}

// Whether input is still to come, or a file is being read: timers wait for that.
function busy() {
  const asked = process.getActiveResourcesInfo();
  if (asked.some((kind) => kind.startsWith("FSReq"))) return true;
  const input = Object.getOwnPropertyDescriptor(process, "stdin") && started ? process.stdin : null;
  return Boolean(input && !input.readableEnded && !input.destroyed && !input.isPaused() && input.listenerCount("data") + input.listenerCount("readable") > 0);
}

let started = false;
let hungry = false;

// More is asked for than there is to read: that is told once.
function starve() {
  if (!hungry) log.note("starved", "the input");
  hungry = true;
}

function watchInput() {
  const held = Object.getOwnPropertyDescriptor(process, "stdin");
  Object.defineProperty(process, "stdin", {
    configurable: true,
    enumerable: true,
    get() {
      const input = held.get ? held.get.call(process) : held.value;
      if (!started) input.once("end", () => input.isPaused() || starve());
      started = true;
      return input;
    },
  });
  const read = fs.readSync;
  fs.readSync = (file, ...rest) => {
    const size = read(file, ...rest);
    if (file === 0 && size === 0) starve();
    return size;
  };
  const whole = fs.readFileSync;
  fs.readFileSync = (file, ...rest) => {
    if (file === 0 || file === "/dev/stdin") starve();
    return whole(file, ...rest);
  };
}

function watchFiles() {
  const Module = require("module");
  const compile = Module.prototype._compile;
  Module.prototype._compile = function (text, name) {
    return compile.call(this, state.prepared(plan, path.relative(process.cwd(), name), text), name);
  };
  if (Module.register && plan.tops && Object.keys(plan.tops).length) {
    try {
      Module.register("./loader.mjs", require("url").pathToFileURL(__filename), { data: { plan, folder: process.cwd() } });
    } catch (error) {
      log.note("note", "variables of modules cannot be watched with this engine");
    }
  }
}

function beginCoverage() {
  const { Session } = require("inspector");
  coverage = new Session();
  coverage.connect();
  coverage.post("Profiler.enable");
  coverage.post("Profiler.startPreciseCoverage", { callCount: true, detailed: plan.cover === "lines" });
}

function tellCoverage() {
  if (coverage === null) return;
  coverage.post("Profiler.takePreciseCoverage", (error, found) => {
    for (const script of error ? [] : found.result) {
      const name = script.url.startsWith("file://") ? require("url").fileURLToPath(script.url) : script.url;
      const file = path.relative(process.cwd(), name);
      if (plan.files.includes(file)) tellScript(file, fs.readFileSync(name, "utf-8"), script.functions);
    }
  });
  coverage = null;
}

function tellScript(file, text, functions) {
  const loaded = state.prepared(plan, file, text);
  const shift = loaded.length - text.length;
  const starts = [0];
  for (let i = 0; i < loaded.length; i++) if (loaded[i] === "\n") starts.push(i + 1);
  const line = (offset) => starts.findLastIndex((s) => s <= offset) + 1;
  const counts = new Array(starts.length + 1).fill(0);
  for (const f of functions) {
    const first = line(f.ranges[0].startOffset);
    if (f.ranges[0].count > 0 && f.functionName !== "") log.note("cover", file, first);
    for (const range of f.ranges) {
      // a line counts as what it begins with
      for (let n = line(range.startOffset); n <= line(Math.max(range.startOffset, range.endOffset - 1)); n++) {
        const begins = starts[n - 1] + /^\s*/.exec(loaded.slice(starts[n - 1], starts[n]))[0].length;
        if (range.count > 0 || range.startOffset <= begins) counts[n] = range.count;
      }
    }
  }
  if (plan.cover === "lines") log.note("reach", file, counts.map((c, n) => (c > 0 ? n : 0)).filter(Boolean).join(" "));
  return shift;
}

pinChance();
clock.pin();
if (plan) {
  log.begin(plan.log);
  raiseFence();
  state.begin(plan);
  watchInput();
  watchFiles();
  clock.turns.over = over;
  clock.turns.busy = busy;
  if (plan.cover) beginCoverage();
  if (plan.requests && plan.requests.length) require("./web.cjs").begin(plan, over, end);
  if (plan.calls) require("./calls.cjs").begin(() => turn);
  process.reallyExit = (status) => {
    finish();
    exit(status);
  };
  process.on("exit", finish);
}

module.exports = { plan, over, end, turn: () => turn };
