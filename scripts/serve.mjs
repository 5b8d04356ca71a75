// The production server: an HTTP server of our own in front of the framework, so that only the methods we
// know get that far.
import { randomBytes } from "node:crypto";
import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import { createServer as createTlsServer } from "node:https";
import { dirname, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import next from "next";
import { makeCounters } from "./setup/counters.mjs";

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const METHODS = new Set(["GET", "HEAD", "POST", "DELETE"]);
const REFUSED = JSON.stringify({
  code: "wrong-method",
  sentence: `Only ${[...METHODS].join(", ")} are taken here.`,
});
const port = Number(process.env.LISTEN_PORT);

const app = next({ dev: process.env.NODE_ENV === "development", dir: ROOT, hostname: "127.0.0.1", port });
await app.prepare();
const handle = app.getRequestHandler();

/**
 * A route can't say itself how its body is encoded: it says so in a header of ours
 * (src/http/encoded-plan.ts).
 */
function sayEncoding(response) {
  const { writeHead } = response;
  response.writeHead = function saidOnce(...args) {
    const encoding = this.getHeader("x-body-encoding");
    if (encoding !== undefined) {
      this.removeHeader("x-body-encoding");
      this.setHeader("content-encoding", encoding);
    }
    return writeHead.apply(this, args);
  };
}

/**
 * Where a request comes from: who is at the other end, or behind a proxy (BEHIND_PROXY=1) whom that names last.
 * Nobody else writes it: what a client says in that header is thrown away.
 */
function sayAddress(request) {
  const last = String(request.headers["x-forwarded-for"] ?? "")
    .split(",")
    .at(-1)
    .trim();
  const isProxied = process.env.BEHIND_PROXY === "1" && last !== "";
  request.headers["x-client-address"] = isProxied ? last : (request.socket.remoteAddress ?? "");
}

/**
 * The content security policy of one answer. Scripts run from our own files, or inline with this answer's
 * nonce: the framework reads it off the request and puts it on its start-up scripts. Styles are inline where a
 * place is worked out; nothing is ever loaded from elsewhere.
 */
function sayPolicy(request, response) {
  if (process.env.NODE_ENV !== "production") return;
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${randomBytes(18).toString("base64")}'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "worker-src 'self' blob:",
    "connect-src 'self'",
    "frame-ancestors 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "object-src 'none'",
  ].join("; ");
  request.headers["content-security-policy"] = policy;
  response.setHeader("content-security-policy", policy);
}

const counters = makeCounters((line) => process.stdout.write(`${line}\n`));
const LOOPBACK = /^(127\.|::1$|::ffff:127\.)/;

/** Whoever watches from this very machine gets what was counted; nobody beyond it does, nor through a proxy. */
function tellCounters(request, response) {
  const isNear = LOOPBACK.test(request.socket.remoteAddress ?? "") && !request.headers["x-forwarded-for"];
  if (request.url !== "/metrics" || request.method !== "GET" || !isNear) return false;
  response.writeHead(200, {
    "content-type": "text/plain; version=0.0.4; charset=utf-8",
    "cache-control": "no-store",
  });
  response.end(counters.text(process.memoryUsage(), process.uptime()));
  return true;
}

function answer(request, response) {
  if (tellCounters(request, response)) return;
  const end = counters.begin({ method: request.method ?? "", url: request.url ?? "" });
  response.once("close", () =>
    end({
      status: response.statusCode,
      isStream: String(response.getHeader("content-type")).startsWith("text/event-stream"),
    }),
  );
  sayPolicy(request, response);
  sayEncoding(response);
  sayAddress(request);
  if (METHODS.has(request.method ?? "")) {
    void handle(request, response);
    return;
  }
  response.writeHead(405, {
    allow: [...METHODS].join(", "),
    "content-type": "application/json",
    connection: "close",
  });
  response.end(REFUSED);
}
const refuseSocket = (socket, status) => {
  if (socket.writable)
    socket.end(`HTTP/1.1 ${status}\r\nallow: ${[...METHODS].join(", ")}\r\nconnection: close\r\n\r\n`);
};
// Methods that the parser does not know never become a request, and CONNECT becomes one of its own kind.
const REFUSALS = {
  HPE_INVALID_METHOD: "405 Method Not Allowed",
  HPE_HEADER_OVERFLOW: "431 Request Header Fields Too Large",
};
/** A server that hands on only what the framework is to see. */
function guarded(server) {
  server.on("clientError", (error, socket) =>
    refuseSocket(socket, REFUSALS[error.code] ?? "400 Bad Request"),
  );
  server.on("connect", (_, socket) => refuseSocket(socket, "405 Method Not Allowed"));
  server.on("upgrade", (request, socket, head) => {
    if (process.env.NODE_ENV === "development") void app.getUpgradeHandler()(request, socket, head);
    else refuseSocket(socket, "400 Bad Request");
  });
  return server;
}

const servers = [guarded(createServer(answer)).listen(port, "127.0.0.1")];
const { LISTEN_HOST = "", LISTEN_TLS_PORT, LISTEN_CERTIFICATE = "", LISTEN_KEY = "" } = process.env;
// Beyond loopback only over TLS: what crosses a network is read by others, and no page works offline from
// elsewhere.
if (LISTEN_HOST !== "")
  servers.push(
    guarded(
      createTlsServer({ cert: readFileSync(LISTEN_CERTIFICATE), key: readFileSync(LISTEN_KEY) }, answer),
    ).listen(Number(LISTEN_TLS_PORT), LISTEN_HOST),
  );

const stop = () => {
  let open = servers.length;
  for (const server of servers) {
    server.close(() => {
      open -= 1;
      if (open === 0) process.exit(0);
    });
    server.closeIdleConnections();
  }
  // What is being answered gets a moment; what only waits does not keep us.
  setTimeout(() => process.exit(0), 3000);
};
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
// The terminal that started it is gone: no reason to go, too.
process.on("SIGHUP", () => {});
