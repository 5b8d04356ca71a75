import { createServer, type Server } from "node:http";
import { createServer as createTls } from "node:https";
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { once } from "node:events";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v7 } from "uuid";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { decodeChanges, encodeChanges, encodePlan } from "@/core/formats";
import { must } from "@/core/kernel";
import { PlanIndex } from "@/core/plan";
import { driftBetween, knowledgeOf, requestFor } from "@/core/readback";
import { changesFrom, stateFrom } from "@/core/records";
import { foundState, operationsBetween, wayFrom } from "@/core/runbook";
import { startDevices, type RunningDevices } from "@/stand-in/devices/server";
import { ask, closeStores, cookieOf, enter } from "../../tests/support/handlers";

// The application's own side of devices that answer: with the stand-ins over real HTTP, and with devices that
// are read, over HTTP on loopback and over TLS.

const plan = lockkeepersHouse();
const index = PlanIndex.of(plan);
const folder = mkdtempSync(join(tmpdir(), "devices-"));
const file = join(folder, "stand-in-devices.json");
process.env.STAND_IN_DEVICES = file;

let running: RunningDevices;
let cookie = "";
let site = "";
const open: Server[] = [];

/** A small device of another make. */
async function serve(server: Server): Promise<number> {
  server.listen(0, "127.0.0.1");
  await once(server, "listening");
  open.push(server);
  return (server.address() as AddressInfo).port;
}

const DATA = '{"ietf-interfaces:interfaces":{"interface":[]}}';
const asked: string[] = [];
const plain = createServer((request, response) => {
  asked.push(`${request.url} ${request.headers.authorization ?? "nobody"}`);
  if (request.url === "/elsewhere/data?content=config")
    response.writeHead(302, { location: "http://10.0.0.1/" });
  else if (request.url?.startsWith("/closed") === true) response.writeHead(401);
  else if (request.url === "/.well-known/host-meta")
    response.write(
      "<XRD xmlns='http://docs.oasis-open.org/ns/xri/xrd-1.0'><Link rel='restconf' href='/own'/></XRD>",
    );
  else response.write(DATA);
  response.end();
});
let port = 0;
let tlsPort = 0;
let fingerprint = "";

beforeAll(async () => {
  port = await serve(plain);
  execFileSync(
    "openssl",
    [
      ..."req -x509 -newkey ec -pkeyopt ec_paramgen_curve:prime256v1 -nodes -days 2 -subj /CN=switch".split(
        " ",
      ),
      ...["-keyout", join(folder, "key.pem"), "-out", join(folder, "cert.pem")],
    ],
    { stdio: "ignore" },
  );
  const cert = readFileSync(join(folder, "cert.pem"));
  fingerprint = execFileSync("openssl", ["x509", "-noout", "-fingerprint", "-sha256"], { input: cert })
    .toString()
    .replace(/^.*=/, "")
    .trim();
  const tls = createTls({ key: readFileSync(join(folder, "key.pem")), cert }, (request, response) => {
    asked.push(`tls ${request.headers.authorization ?? "nobody"}`);
    response.end(DATA);
  });
  tlsPort = await serve(tls as unknown as Server);
  process.env.READ_DEVICES = [
    ...["", "/elsewhere", "/closed"].map((path) => `http://127.0.0.1:${port}${path}`),
    `127.0.0.1:${tlsPort}`,
    "http://192.0.2.1",
  ].join(", ");
  running = await startDevices({
    port: 0,
    password: "of this test",
    plan: (id) => Promise.resolve(id === site ? { revision: 1, index } : null),
  });
  writeFileSync(
    file,
    JSON.stringify({ address: `http://127.0.0.1:${running.port}`, password: "of this test" }),
  );
  cookie = cookieOf(await enter("Ruth"));
  const { POST } = await import("@/app/api/sites/route");
  const made = await ask(POST, {
    method: "POST",
    body: { by: "file", id: v7(), batch: v7(), file: encodePlan(plan) },
    cookie,
  });
  site = ((await made.json()) as { id: string }).id;
});
afterAll(async () => {
  await running.close();
  for (const server of open) server.closeAllConnections();
  for (const server of open) server.close();
  await closeStores();
});

interface Body {
  readonly state?: { readonly changes: unknown; readonly unsaved: string[]; readonly laptop: string | null };
  readonly heard?: { readonly status: number; readonly text: string } | null;
  readonly code?: string;
  readonly sentence?: string;
  readonly text?: string;
  readonly allowed?: string[];
}

async function bench(body?: unknown, of = site): Promise<{ readonly status: number; readonly body: Body }> {
  const { GET, POST } = await import("@/app/api/sites/[site]/stand-ins/route");
  const method = body === undefined ? "GET" : "POST";
  const answer = await ask(body === undefined ? GET : POST, { method, body, params: { site: of }, cookie });
  return { status: answer.status, body: (await answer.json()) as Body };
}

async function read(body: object): Promise<{ readonly status: number; readonly body: Body }> {
  const { POST } = await import("@/app/api/sites/[site]/read-device/route");
  const answer = await ask(POST, { method: "POST", body, params: { site }, cookie });
  return { status: answer.status, body: (await answer.json()) as Body };
}

test("what is found is set up, an operation is told to its device, and read back it is as told", async () => {
  const box = must(foundState(index, null), "a state");
  expect((await bench({ do: "begin", changes: encodeChanges(changesFrom(box, index)) })).status).toBe(200);
  const gateway = must(
    [...plan.device.values()].find(({ kind }) => kind === "gateway"),
    "a gateway",
  );
  await bench({ do: "reset", device: gateway.id });
  const reset = must((await bench()).body.state, "a state");
  const asIs = must(stateFrom(index, decodeChanges(reset.changes)), "a state");
  const operation = must(
    operationsBetween(asIs, index).find(({ device, page }) => device === gateway.id && page === "tree"),
    "a tree to set",
  );
  const request = must(requestFor(index, asIs, operation), "it can be told");
  const free = index.portsOf(gateway.id).find(({ id }) => wayFrom(asIs, id, gateway.id) !== null);
  await bench({ do: "plug", port: must(free, "a port that leads to it").id });
  const asking =
    request.says === "yang"
      ? { what: "enter", says: "yang", text: request.text }
      : { what: "enter", says: "settings", changes: encodeChanges(request.changes) };
  // It is just starting: silence, and nothing was done.
  expect((await bench({ do: "ask", device: gateway.id, asking })).body.heard).toBeNull();
  await new Promise((done) => setTimeout(done, 3_100));
  const told = await bench({ do: "ask", device: gateway.id, asking });
  expect([told.status, told.body.heard?.status, told.body.state?.unsaved]).toEqual([200, 204, [gateway.id]]);
  const heard = await bench({ do: "ask", device: gateway.id, asking: { what: "read" } });
  expect(heard.body.heard?.text).toContain("ietf-interfaces:interfaces");
  expect(
    (await bench({ do: "ask", device: gateway.id, asking: { what: "save" } })).body.state?.unsaved,
  ).toEqual([]);
  const now = must(stateFrom(index, decodeChanges((await bench()).body.state?.changes)), "it");
  expect(operationsBetween(now, index).length).toBe(operationsBetween(asIs, index).length - 1);
  expect(driftBetween(now, index, knowledgeOf([], true)).length).toBeGreaterThan(0);
});

test("what is no act, and a site that is not there, are refused in a sentence", async () => {
  expect((await bench({ do: "dance" })).status).toBe(400);
  expect((await bench({ do: "begin", changes: [{ kind: "port" }] })).status).toBe(400);
  expect((await bench({ do: "reset", device: v7() })).body).toMatchObject({
    code: "no-stand-ins",
    sentence: "There is no such device that is set up.",
  });
  expect((await bench(undefined, v7())).body.code).toBe("no-such-site");
});

test("without stand-ins that answer it says so", async () => {
  writeFileSync(file, JSON.stringify({ address: "http://127.0.0.1:1", password: "x" }));
  expect((await bench()).body.sentence).toMatch(/do not answer; they may be just starting/);
  writeFileSync(file, "cut off");
  expect((await bench()).body).toMatchObject({ code: "no-stand-ins" });
  writeFileSync(
    file,
    JSON.stringify({ address: `http://127.0.0.1:${running.port}`, password: "of this test" }),
  );
});

test("a device is read where it says that its data is; the name and password go to it alone", async () => {
  asked.length = 0;
  const word = Buffer.from("ruth:a word").toString("base64");
  expect(await read({ address: `http://127.0.0.1:${port}`, user: "ruth", password: "a word" })).toEqual({
    status: 200,
    body: { text: DATA },
  });
  expect(asked).toEqual([`/.well-known/host-meta Basic ${word}`, `/own/data?content=config Basic ${word}`]);
});

test.each([
  ["/elsewhere", /sends us elsewhere \(302\), which is not followed/],
  ["/closed", /does not take that name and password \(401\)/],
])("%s is refused in a sentence", async (path, sentence) => {
  const { status, body } = await read({
    address: `http://127.0.0.1:${port}${path}`,
    user: "r",
    password: "p",
  });
  expect([status, body.code]).toEqual([422, "device-not-read"]);
  expect(body.sentence).toMatch(sentence);
});

test("over TLS only whom this machine knows, or whose certificate is named", async () => {
  const address = `127.0.0.1:${tlsPort}`;
  asked.length = 0;
  const stranger = await read({ address, user: "r", password: "p" });
  expect(stranger.body.sentence).toContain(`enter it if it is that: ${fingerprint}`);
  const other = `${fingerprint.startsWith("00") ? "11" : "00"}${fingerprint.slice(2)}`;
  const wrong = await read({ address, user: "r", password: "p", fingerprint: other });
  expect(wrong.body.sentence).toMatch(/is another one/);
  // Nobody heard the password.
  expect(asked).toEqual([]);
  expect((await read({ address, user: "r", password: "p", fingerprint })).body).toEqual({ text: DATA });
});

test("only addresses of the list are read, and no password goes over the network in the clear", async () => {
  const { GET } = await import("@/app/api/sites/[site]/read-device/route");
  const answer = (await (await ask(GET, { method: "GET", params: { site }, cookie })).json()) as Body;
  expect(answer.allowed).toHaveLength(5);
  const other = await read({ address: "127.0.0.1:22", user: "", password: "" });
  expect(other.body.sentence).toMatch(/^127\.0\.0\.1:22 is not one of the addresses that may be read: /);
  const clear = await read({ address: "http://192.0.2.1", user: "", password: "" });
  expect(clear.body.sentence).toMatch(/is no address that is read: an IP address or a name, over TLS/);
});
