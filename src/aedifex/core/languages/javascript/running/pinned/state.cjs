// What the watched variables hold at each moment, wherever they live by now: a variable, or the field of an object.
//
// Each file of the program is loaded with a few words in front of its first line that hand over how its top variables
// are read, and each watched class with a few that say when an object of it is made.
"use strict";

const log = require("./log.cjs");
const values = require("./values.cjs");

const UNSEEN = "?", UNSET = "-";
const MANY = 3000; // moments that are noted one by one; after those every tenth

let rows = [];
let moments = 0;
let over = false;
const last = new Map();
const readers = new Map(); // file → name → how it is read
const made = new Map(); // class → its objects, in the order in which they were made

function begin(plan) {
  rows = plan.watch || [];
  globalThis.__aedifex_see = (file, found) => readers.set(file, { ...(readers.get(file) || {}), ...found });
  globalThis.__aedifex_made = (name, object) => {
    if (!made.has(name)) made.set(name, []);
    if (made.get(name).length < 1000) made.get(name).push(object);
  };
}

// The words that go in front of a file's text, and inside its classes.
function prepared(plan, file, text) {
  const names = (plan.tops || {})[file];
  if (names === undefined || !plan.watch || plan.watch.length === 0) return text;
  const head = /^#![^\n]*/.exec(text);
  const at = head ? head[0].length : 0;
  const strict = /^\s*(?:(?:\/\/[^\n]*\n|\/\*[^]*?\*\/)\s*)*(["'])use strict\1/.test(text.slice(at)) ? '"use strict";' : "";
  const found = names.map((n) => `${JSON.stringify(n)}:()=>${n}`).join(",");
  let rest = text.slice(at);
  for (const name of new Set(plan.watch.map((r) => r.class).filter(Boolean))) {
    const pattern = new RegExp(`(^|\\n)([ \\t]*(?:export )?class ${name}\\b[^{\\n]*\\{)`);
    rest = rest.replace(pattern, `$1$2 #aedifex = globalThis.__aedifex_made(${JSON.stringify(name)}, this);`);
  }
  return `${text.slice(0, at)}${at ? "\n" : ""}${strict}globalThis.__aedifex_see(${JSON.stringify(file)},{${found}});${at ? rest.replace(/^\n/, "") : rest}`;
}

function variable(file, name) {
  const read = (readers.get(file) || {})[name];
  if (read === undefined) return { known: false };
  try {
    return { known: true, value: read() };
  } catch (error) {
    return { known: true, unset: true };
  }
}

function holder(row) {
  const all = made.get(row.class) || [];
  if (all.length <= 1) return all[0];
  const places = [...readers.values()].map((found) => {
    const read = found[row.object];
    try {
      return read && read();
    } catch (error) {
      return undefined;
    }
  });
  for (const others of made.values()) {
    if (others[0]) places.push(others[0][row.object], others[0]["_" + row.object]);
  }
  return places.find((p) => p !== undefined && all.includes(p));
}

function look(row) {
  if (row.function) return UNSEEN;
  const found = variable(row.file, row.variable);
  if (found.known) return found.unset ? UNSET : values.tell(found.value);
  const object = row.object ? holder(row) : undefined;
  if (object === undefined || object === null) return UNSEEN;
  for (const member of row.members || []) {
    if (Object.prototype.hasOwnProperty.call(object, member)) return values.tell(object[member]);
  }
  return UNSET;
}

function moment(label) {
  moments += 1;
  if (moments > MANY && moments % 10) return;
  for (const row of rows) {
    const text = look(row);
    if (last.get(row.name) !== text) {
      last.set(row.name, text);
      log.note("state", row.name, label, text);
    }
  }
}

function atEnd(turns) {
  if (over) return;
  over = true;
  moment("the end");
  log.note("turns", turns);
}

module.exports = { begin, prepared, moment, atEnd };
