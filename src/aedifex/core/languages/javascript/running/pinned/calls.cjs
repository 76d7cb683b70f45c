// The calls of the methods of some classes, as source text from which a test can be made.
//
// Noted of each call: how its object and arguments are made, the call, and what it gave, printed, drew and changed. A call
// during which a turn passes, or that has to be waited for, is left out: no test could do that.
"use strict";

const log = require("./log.cjs");
const source = require("./source.cjs");

const MOST = 400; // different calls of one method
const ROW = 6000; // characters of what is noted of a call
const DRAWS = 50; // numbers drawn by one call

const seen = new Map(); // class.method → what was noted
const drawn = [];
let running = null; // the call that runs, which knows the one around it
let turn = () => 0;

// What the words that stand in the classes call: see unit_tests.py.
function begin(now) {
  turn = now;
  const next = Math.random;
  Math.random = () => {
    const value = next();
    if (running !== null) drawn.push(value);
    return value;
  };
  globalThis.__aedifex_calls = { watch, born: source.born, at: (place) => running?.places.add(place) };
}

function watch(kind) {
  source.kinds.add(kind);
  for (const name of Object.getOwnPropertyNames(kind.prototype)) {
    const held = Object.getOwnPropertyDescriptor(kind.prototype, name);
    if (name === "constructor" || typeof held.value !== "function" || held.value.constructor !== Function) continue;
    Object.defineProperty(kind.prototype, name, { ...held, value: watched(kind, name, held.value) });
  }
}

function watched(kind, name, method) {
  const noted = new Set();
  seen.set(`${kind.name}.${name}`, noted);
  const standing = function (...given) {
    if (this === null || typeof this !== "object" || this.constructor !== kind || noted.size >= MOST) return method.apply(this, given);
    return new Call(kind, name, this, given).follow(method, noted);
  };
  return Object.defineProperties(standing, { name: { value: method.name }, length: { value: method.length } });
}

class Call {
  constructor(kind, name, owner, given) {
    Object.assign(this, { kind, name, owner, given, places: new Set() });
    this.setting = new source.Setting();
    this.target = this.setting.object(owner);
    this.text = this.target && this.setting.list(given);
    this.before = source.flat(owner);
  }

  follow(method, noted) {
    const [start, began] = [drawn.length, turn()];
    const out = listen();
    const outcome = { result: undefined, error: null };
    const around = running;
    running = this;
    try {
      outcome.result = method.apply(this.owner, this.given);
      return outcome.result;
    } catch (error) {
      outcome.error = error;
      throw error;
    } finally {
      running = around;
      outcome.printed = out.stop();
      outcome.chance = drawn.slice(start);
      if (running === null) drawn.length = 0;
      const waits = outcome.result !== null && typeof outcome.result === "object" && typeof outcome.result.then === "function";
      if (typeof this.text === "string" && turn() === began && !waits && outcome.chance.length <= DRAWS) this.note(outcome, noted);
    }
  }

  note({ result, error, printed, chance }, noted) {
    const after = source.flat(this.owner);
    const known = Object.keys(after).filter((k) => after[k] !== null && (this.before[k] !== null || !(k in this.before)));
    const row = {
      class: this.kind.name,
      method: this.name,
      setup: this.setting.lines,
      target: this.target,
      call: `${this.target}.${this.name}(${this.text})`,
      result: source.code(result),
      raised: error === null ? null : source.raised(error),
      printed,
      chance,
      after: Object.fromEntries(known.map((k) => [k, after[k]])),
      changed: Object.keys(after).filter((k) => after[k] !== this.before[k]),
      things: this.setting.after(),
      lines: [...this.places],
    };
    const key = JSON.stringify([row.setup, row.call]);
    const text = JSON.stringify(row);
    if (noted.has(key) || text.length > ROW) return;
    noted.add(key);
    log.note("call", text);
  }
}

// What is written to standard output from now on, until it is stopped.
function listen() {
  const stream = process.stdout;
  const held = Object.getOwnPropertyDescriptor(stream, "write");
  const write = stream.write;
  let text = "";
  stream.write = function (chunk, ...rest) {
    text += chunk;
    return write.call(this, chunk, ...rest);
  };
  return {
    stop() {
      if (held) Object.defineProperty(stream, "write", held);
      else delete stream.write;
      return text;
    },
  };
}

module.exports = { begin };
