// Requests to a program that serves the web, one after another over loopback, each answer noted; then the server is interrupted.
"use strict";

const clock = require("./clock.cjs");
const log = require("./log.cjs");

const MATTER = new Set(["content-type", "location", "set-cookie", "allow", "www-authenticate", "cache-control", "etag", "vary",
  "content-disposition", "access-control-allow-origin", "retry-after", "content-encoding"]);
const LONG = 1 << 16; // bytes of a body that are noted as text
const PAUSE = 10; // real milliseconds for a handler that has something to do after it has answered
const PATIENCE = 8000; // real milliseconds until an answer is given up

let done = false;
const jar = new Map();

function begin(plan, over, end) {
  const net = require("net");
  const listen = net.Server.prototype.listen;
  net.Server.prototype.listen = function (...args) {
    if (done) return listen.apply(this, args);
    const call = args.find((a) => typeof a === "function");
    if (call) this.once("listening", call);
    this.once("listening", () => {
      if (!done) serve(plan.requests, this.address(), over, end);
      done = true;
    });
    return listen.call(this, { port: 0, host: "127.0.0.1" });
  };
  process.on("exit", () => {
    if (!done) log.note("trouble", "it did not serve anything: nothing listened");
  });
}

async function serve(requests, address, over, end) {
  for (let n = 0; n < requests.length; n++) {
    const request = requests[n];
    const label = `response ${n + 1} (${request.method || "GET"} ${request.path})`;
    try {
      const answer = await send(address, request);
      keep(answer.headers);
      note(label, answer.status, answer.headers, answer.body);
    } catch (error) {
      note(label, `no answer (${error.code || error.name})`, [], Buffer.alloc(0));
    }
    await new Promise((resolve) => clock.real.setTimeout(resolve, PAUSE));
    over("request");
  }
  log.note("stopped", "after its last request");
  if (process.listenerCount("SIGINT")) process.emit("SIGINT", "SIGINT");
  clock.real.setTimeout(() => end(""), process.listenerCount("SIGINT") ? 500 : 0);
}

function send(address, request) {
  const http = require("http");
  const [body, kind] = carried(request);
  const headers = { Host: "localhost", Connection: "close", ...(jar.size ? { Cookie: [...jar].map(([k, v]) => `${k}=${v}`).join("; ") } : {}), ...(request.headers || {}) };
  if (kind && !Object.keys(headers).some((k) => k.toLowerCase() === "content-type")) headers["Content-Type"] = kind;
  if (body.length) headers["Content-Length"] = body.length;
  return new Promise((resolve, reject) => {
    const wanted = http.request({ host: address.address, port: address.port, method: (request.method || "GET").toUpperCase(), path: request.path, headers, agent: false }, (answer) => {
      const parts = [];
      answer.on("data", (part) => parts.push(part));
      answer.on("end", () => resolve({ status: `${answer.statusCode} ${answer.statusMessage}`, headers: pairs(answer.rawHeaders), body: Buffer.concat(parts) }));
      answer.on("error", reject);
    });
    const late = clock.real.setTimeout(() => wanted.destroy(Object.assign(new Error("timeout"), { code: "ETIMEDOUT" })), PATIENCE);
    wanted.on("close", () => clock.real.clearTimeout(late));
    wanted.on("error", reject);
    wanted.end(body);
  });
}

function carried(request) {
  if ("json" in request) return [Buffer.from(JSON.stringify(request.json)), "application/json"];
  if ("form" in request) return [Buffer.from(new URLSearchParams(request.form).toString()), "application/x-www-form-urlencoded"];
  return [Buffer.from(request.body || ""), ""];
}

function pairs(raw) {
  const found = [];
  for (let i = 0; i < raw.length; i += 2) found.push([raw[i], raw[i + 1]]);
  return found;
}

function keep(headers) {
  for (const [name, value] of headers) {
    if (name.toLowerCase() !== "set-cookie") continue;
    const [pair, ...rest] = value.split(";");
    const [key, ...content] = pair.split("=");
    const gone = /max-age=0|expires=thu, 01 jan 1970/i.test(rest.join(";"));
    if (gone) jar.delete(key.trim());
    else jar.set(key.trim(), content.join("="));
  }
}

function note(label, status, headers, body) {
  const rows = headers.filter(([name]) => MATTER.has(name.toLowerCase())).sort((a, b) => (a[0].toLowerCase() < b[0].toLowerCase() ? -1 : 1));
  log.note("shot", label, [status, ...rows.map(([name, value]) => `${name}: ${value}`), "", told(body)].join("\n"));
}

function told(body) {
  const text = body.toString("utf-8");
  if (!Buffer.from(text, "utf-8").equals(body)) return `<${body.length} bytes, ${require("crypto").createHash("sha256").update(body).digest("hex").slice(0, 8)}>`;
  return body.length <= LONG ? text : `${text.slice(0, LONG)}\n<${body.length} bytes in all>`;
}

module.exports = { begin };
