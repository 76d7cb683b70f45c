// Starts a script the way a page does: in the scope that all scripts of a page share, after the page's own elements are there.
"use strict";

const fs = require("fs");
const path = require("path");
const vm = require("vm");
const pin = require("./pin.cjs");
const state = require("./state.cjs");
const browser = require("./browser.cjs");

const entry = process.argv[2];
process.argv.splice(1, 1);
browser.begin(pin, entry);
const before = new Set(Object.getOwnPropertyNames(globalThis));
for (const file of browser.scripts(entry)) {
  const text = fs.readFileSync(file, "utf-8");
  vm.runInThisContext(pin.plan ? state.prepared(pin.plan, file, text) : text, { filename: path.resolve(file) });
}
browser.loaded(before);
