// Values and objects as source text that makes them again.
"use strict";

const DEPTH = 6;
const LONG = 1500; // characters of one value
const TAKEN = ["assert", "test", "t", "drawn", "printed", "arguments", "eval"]; // names that mean something in a test
const WORDS = "await break case catch class const continue debugger default delete do else enum export extends false finally for function if implements import in instanceof interface let new null package private protected public return static super switch this throw true try typeof var void while with yield".split(" ");

const kinds = new Set(); // the classes that tests are made for
const births = new WeakMap(); // object → the arguments it was made with, and its fields then

// An object is complete: its constructor is at its end.
function born(object, given) {
  if (kinds.has(object.constructor)) births.set(object, { given: new Setting(false).list([...given]), fields: flat(object) });
}

function stem(name) {
  const found = name.charAt(0).toLowerCase() + name.slice(1);
  return WORDS.includes(found) || TAKEN.includes(found) || found === name ? `${found}1` : found;
}

function identifier(name) {
  return /^[\p{L}$_][\p{L}\p{N}$_]*$/u.test(name);
}

// Source text of a value; null if there is none.
function code(value, depth = 0) {
  const text = written(value, depth);
  return text !== null && text.length < LONG ? text : null;
}

function written(value, depth) {
  if (value === undefined || value === null || typeof value === "boolean") return String(value);
  if (typeof value === "number") return Object.is(value, -0) ? "-0" : String(value);
  if (typeof value === "bigint") return `${value}n`;
  if (typeof value === "string") return JSON.stringify(value);
  if (typeof value !== "object" || depth > DEPTH) return null;
  if (stream(value) !== null) return stream(value);
  const proto = Object.getPrototypeOf(value);
  if (Array.isArray(value)) return proto === Array.prototype && Object.keys(value).length === value.length ? around("[", value, "]", depth) : null;
  if (ArrayBuffer.isView(value)) return value.length === undefined ? null : around(`new ${proto.constructor.name}([`, value, "])", depth);
  if (proto === Map.prototype) return around("new Map([", value, "])", depth);
  if (proto === Set.prototype) return around("new Set([", value, "])", depth);
  if (proto === Date.prototype) return `new Date(${Number(value)})`;
  return proto === Object.prototype ? table(value, depth) : null;
}

// What the program itself asks and tells through, as it is named everywhere; null for anything else.
function stream(value) {
  if (value === globalThis.console) return "console";
  if (typeof process === "object" && value === process.stdout) return "process.stdout";
  return null;
}

function around(open, values, close, depth) {
  const items = [...values].map((v) => code(v, depth + 1));
  return items.includes(null) ? null : open + items.join(", ") + close;
}

function table(value, depth) {
  const rows = [];
  for (const key of Reflect.ownKeys(value)) {
    const held = Object.getOwnPropertyDescriptor(value, key);
    const text = typeof key === "symbol" || key === "__proto__" || held.get || held.set ? null : code(held.value, depth + 1);
    if (text === null || !held.enumerable) return null;
    rows.push(`${identifier(key) ? key : JSON.stringify(key)}: ${text}`);
  }
  return rows.length ? `{ ${rows.join(", ")} }` : "{}";
}

// Path of each field, also of objects that it owns → its source text, null for what has none.
function flat(owner, before = "", depth = 0, found = {}) {
  for (const name of Object.keys(owner)) {
    const held = Object.getOwnPropertyDescriptor(owner, name);
    if (held.get || held.set || !identifier(name)) continue;
    const value = held.value;
    if (stream(value) !== null) continue;
    if (value !== null && typeof value === "object" && kinds.has(value.constructor) && depth < 3) flat(value, `${before}${name}.`, depth + 1, found);
    else found[before + name] = code(value);
  }
  return found;
}

// What an error is, as a test asks for it.
function raised(error) {
  return error instanceof Error ? `{ name: ${JSON.stringify(error.name)}, message: ${JSON.stringify(error.message)} }` : "";
}

// The lines that make what a call needs.
class Setting {
  constructor(lasting = true) {
    this.lasting = lasting; // whether there may be lines at all
    this.lines = [];
    this.names = new Map(); // object → its name
    this.held = []; // name and object of what a call may change
  }

  // Make an object as in the run, with its fields as they are now; its name, or null if that cannot be told.
  object(owner) {
    if (this.names.has(owner)) return this.names.get(owner);
    const known = births.get(owner);
    if (known === undefined || known.given === null || !this.lasting) return null;
    const name = this.free(stem(owner.constructor.name));
    const now = flat(owner);
    const changed = Object.keys(now).filter((path) => now[path] !== known.fields[path]);
    if (changed.some((path) => now[path] === null)) return null;
    this.lines.push(`const ${name} = new ${owner.constructor.name}(${known.given});`, ...changed.map((p) => `${name}.${p} = ${now[p]};`));
    this.names.set(owner, name);
    return name;
  }

  free(name) {
    const taken = new Set([...this.names.values(), ...this.held.map(([n]) => n)]);
    for (let n = 1; ; n++) if (!taken.has(n === 1 ? name : name + n)) return n === 1 ? name : name + n;
  }

  // Arguments as they stand in a call; null if one of them cannot be written.
  list(given) {
    const texts = given.map((value) => this.argument(value));
    return texts.includes(null) ? null : texts.join(", ");
  }

  argument(value) {
    if (value !== null && typeof value === "object" && kinds.has(value.constructor)) return this.object(value);
    const text = code(value);
    if (text === null || typeof value !== "object" || value === null || !this.lasting) return text;
    const name = this.free("given");
    this.lines.push(`const ${name} = ${text};`);
    this.held.push([name, value]);
    return name;
  }

  // What the call left in the lists and tables that it was given.
  after() {
    return Object.fromEntries(this.held.map(([name, value]) => [name, code(value)]));
  }
}

module.exports = { kinds, born, code, flat, raised, Setting };
