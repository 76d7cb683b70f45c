// Files that are loaded as modules get the same words in front as those that are required.
import { createRequire } from "node:module";
import { fileURLToPath } from "node:url";
import path from "node:path";

const state = createRequire(import.meta.url)("./state.cjs");
let given = null;

export function initialize(data) {
  given = data;
}

export async function load(url, context, next) {
  const loaded = await next(url, context);
  if (given === null || loaded.format !== "module" || !url.startsWith("file:") || !loaded.source) return loaded;
  const file = path.relative(given.folder, fileURLToPath(url));
  return { ...loaded, source: state.prepared(given.plan, file, Buffer.from(loaded.source).toString("utf-8")) };
}
