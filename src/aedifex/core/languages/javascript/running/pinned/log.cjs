// The log of a checked run: a line each, fields between tabs. Written by the first process only.
"use strict";

const fs = require("fs");
const write = fs.writeSync;
const open = fs.openSync;
const MOST = 24 << 20; // characters

let file = null;
let lines = [];
let size = 0;

function begin(path) {
  file = open(path, "a");
}

function escaped(text) {
  return text.replace(/\\/g, "\\\\").replace(/\n/g, "\\n").replace(/\t/g, "\\t").replace(/\r/g, "\\r");
}

function note(kind, ...fields) {
  if (file === null) return;
  const line = [kind, ...fields.map((f) => escaped(String(f)))].join("\t");
  size += line.length;
  if (size > MOST) return;
  lines.push(line);
  if (lines.length >= 500) flush();
}

function flush() {
  if (file === null || lines.length === 0) return;
  const text = lines.join("\n") + "\n";
  lines = [];
  write(file, text);
}

module.exports = { begin, note, flush };
