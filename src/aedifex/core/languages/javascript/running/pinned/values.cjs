// Values as text: the same for the same value in any process, bounded, without running code of the program.
"use strict";

const DEPTH = 5;
const MOST = 400; // nodes in one value
const LONG = 300; // characters of a text

function checksum(text) {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0;
  return hash;
}

function bounded(text) {
  return text.length <= LONG ? text : `${text.slice(0, LONG)}... (${text.length}, ${checksum(text)})`;
}

// What the engine's modules make (servers, sockets, timers): its insides change from run to run and are not the program's state.
const engineMade = new Set();
let modulesSeen = 0;

function ofEngine(maker) {
  const loaded = process.moduleLoadList ?? [];
  if (loaded.length !== modulesSeen) {
    modulesSeen = loaded.length;
    for (const name of require("module").builtinModules) {
      if (name.startsWith("_") || !loaded.includes(`NativeModule ${name}`)) continue;
      const given = require(name);
      for (const key of Object.keys(given)) {
        const held = Object.getOwnPropertyDescriptor(given, key).value;
        if (typeof held === "function" && held.prototype && !/^URL/.test(key)) engineMade.add(held);
      }
    }
  }
  return engineMade.has(maker) || ["Timeout", "Immediate"].includes(maker && maker.name);
}

class Teller {
  constructor() {
    this.nodes = 0;
    this.open = new Set();
  }

  tell(value, depth = 0) {
    if (typeof value === "string") return bounded(JSON.stringify(value));
    if (value === null || typeof value !== "object") {
      if (typeof value === "function") return "<function>";
      return Object.is(value, -0) ? "-0" : bounded(String(value));
    }
    this.nodes += 1;
    if (depth > DEPTH || this.nodes > MOST || this.open.has(value)) return "...";
    this.open.add(value);
    const text = this.compound(value, depth + 1);
    this.open.delete(value);
    return text;
  }

  compound(value, depth) {
    if (Array.isArray(value) || ArrayBuffer.isView(value)) {
      const shown = Array.from(value.length === undefined ? [] : value.slice(0, 50));
      return `[${shown.map((v) => this.tell(v, depth)).join(", ")}${more(value.length)}]`;
    }
    if (value instanceof Map) {
      const rows = [...value].slice(0, 50).map(([k, v]) => `${this.tell(k, depth)} => ${this.tell(v, depth)}`);
      return `{${rows.join(", ")}${more(value.size)}}`;
    }
    if (value instanceof Set) return `{${[...value].slice(0, 50).map((v) => this.tell(v, depth)).join(", ")}${more(value.size)}}`;
    if (value instanceof Date) return `<date ${Number(value)}>`;
    if (value instanceof RegExp) return String(value);
    const proto = Object.getPrototypeOf(value);
    const name = proto === null || proto === Object.prototype ? "" : String(proto.constructor && proto.constructor.name);
    if (name && (globalThis.__aedifex_standins?.has(name) || ofEngine(proto.constructor))) return `<${name}>`;
    const parts = [];
    for (const key of Object.keys(value).slice(0, 50)) {
      const held = Object.getOwnPropertyDescriptor(value, key);
      parts.push(`${key.replace(/^_+/, "")}: ${held.get ? "<computed>" : this.tell(held.value, depth)}`);
    }
    return `${name}{${parts.join(", ")}}`;
  }
}

function more(length) {
  return length > 50 ? `, ... ${length} in all` : "";
}

function tell(value) {
  try {
    return new Teller().tell(value);
  } catch (error) {
    return `<a value that cannot be looked at: ${error && error.name}>`;
  }
}

module.exports = { tell, checksum };
