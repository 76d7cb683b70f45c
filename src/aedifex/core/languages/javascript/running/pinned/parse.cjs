// Parses texts, a request a line, and runs none of them.
"use strict";

const vm = require("vm");
const readline = require("readline");

function tried(text, kind) {
  try {
    if (kind === "module") new vm.SourceTextModule(text, { identifier: "text" });
    else new vm.Script(`(function (exports, require, module, __filename, __dirname) {${text.replace(/^#!/, "//")}\n})`, { filename: "text" });
    return null;
  } catch (error) {
    const line = /^text:(\d+)/.exec(error.stack || "");
    return { message: `${error.name}: ${error.message}`, line: line ? Number(line[1]) : 0 };
  }
}

readline.createInterface({ input: process.stdin }).on("line", (line) => {
  const { text, kinds } = JSON.parse(line);
  const found = kinds.map((kind) => tried(text, kind));
  const wrong = found.some((f) => f === null) ? { message: "", line: 0 } : found[found.length - 1];
  process.stdout.write(JSON.stringify(wrong) + "\n");
});
