// For each file named on standard input: a line of JSON with every identifier's place and the first place of its variable,
// as a scope analyser of the trade sees it. Packages are taken from the folder named in the environment.
"use strict";

const { createRequire } = require("module");
const fs = require("fs");
const load = createRequire(process.env.PACKAGES + "/");
const espree = load("espree");
const { analyze } = load("eslint-scope");

function places(file) {
  const text = fs.readFileSync(file, "utf-8");
  let tree = null;
  let kind = "module";
  for (kind of ["module", "script", "commonjs"]) {
    try {
      tree = espree.parse(text, { ecmaVersion: "latest", sourceType: kind, range: true, ecmaFeatures: { globalReturn: kind === "commonjs" } });
      if (kind !== "module" || /^\s*(import|export)\b/m.test(text)) break;
      tree = null;
    } catch (error) {
      tree = null;
    }
  }
  if (tree === null) return null;
  const scopes = analyze(tree, { ecmaVersion: 2022, sourceType: kind, nodejsScope: kind === "commonjs" });
  const found = {};
  const free = {};
  for (const scope of scopes.scopes) {
    for (const variable of scope.variables) {
      const all = [...variable.identifiers, ...variable.references.map((r) => r.identifier)].filter((n) => n.type === "Identifier").map((n) => n.range[0]);
      // a class sees its own name as a variable of its own: counted as the one outside
      const outer = scope.type === "class" && scope.upper.set.get(variable.name);
      const same = outer && outer.defs.some((d) => variable.defs.some((e) => d.node === e.node));
      const first = Math.min(...all, ...(same ? [...outer.identifiers, ...outer.references.map((r) => r.identifier)].map((n) => n.range[0]) : []));
      for (const at of all) found[at] = Math.min(first, found[at] ?? Infinity);
    }
  }
  for (const reference of scopes.globalScope.through) {
    const { name, range } = reference.identifier;
    if (reference.identifier.type === "Identifier") (free[name] ??= []).push(range[0]);
  }
  for (const all of Object.values(free)) for (const at of all) found[at] ??= Math.min(...all);
  return found;
}

for (const file of fs.readFileSync(0, "utf-8").split("\n").filter(Boolean)) {
  let found = null;
  try {
    found = places(file);
  } catch (error) {
    found = null;
  }
  process.stdout.write(JSON.stringify([file, found]) + "\n");
}
