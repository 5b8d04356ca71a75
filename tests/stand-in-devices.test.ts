import { request as ask } from "node:http";
import { fennelStreet } from "../demo/fennel-street";
import { lockkeepersHouse } from "../demo/lockkeepers-house";
import { decodeChanges, encodeChanges, readRuleData } from "../src/core/formats";
import { must } from "../src/core/kernel";
import { nameOf, PlanIndex, type Change, type Plan } from "../src/core/plan";
import { removeDevice } from "../src/core/planners";
import { driftBetween, knowledgeOf, requestFor } from "../src/core/readback";
import { changesFrom, stateFrom } from "../src/core/records";
import { foundState, provenRunbook, Rehearsal, wayFrom, type Operation } from "../src/core/runbook";
import { afterEdit, donePlan } from "../src/core/testing/after-edit";
import { startDevices, type RunningDevices } from "../src/stand-in/devices/server";

const PASSWORD = "a password of this test";
const HOUSE = PlanIndex.of(lockkeepersHouse());
const PRACTICE = PlanIndex.of(fennelStreet());
const plans = new Map([HOUSE, PRACTICE].map((index) => [index.plan.site.id, { revision: 1, index }]));
let clock = 1_000_000;
let running: RunningDevices;
beforeAll(async () => {
  running = await startDevices({
    port: 0,
    password: PASSWORD,
    plan: (site) => Promise.resolve(plans.get(site) ?? null),
    now: () => clock,
  });
});
afterAll(() => running.close());

interface Heard {
  readonly status: number;
  readonly text: string;
  readonly headers: Readonly<Record<string, unknown>>;
}

/** What is answered; null for silence. */
function http(
  method: string,
  path: string,
  body?: unknown,
  headers: Readonly<Record<string, string>> = {},
): Promise<Heard | null> {
  return new Promise((done) => {
    const asked = ask(
      {
        host: "127.0.0.1",
        port: running.port,
        method,
        path,
        auth: `installer:${PASSWORD}`,
        headers: { "content-type": "application/yang-data+json", ...headers },
      },
      (response) => {
        const parts: Buffer[] = [];
        response.on("data", (part: Buffer) => parts.push(part));
        response.on("end", () =>
          done({
            status: response.statusCode ?? 0,
            text: Buffer.concat(parts).toString(),
            headers: response.headers,
          }),
        );
      },
    );
    asked.on("error", () => done(null));
    asked.end(typeof body === "string" ? body : JSON.stringify(body));
  });
}

const hand = async (index: PlanIndex, act: object): Promise<Heard> =>
  must(await http("POST", `/${index.plan.site.id}/bench`, act), "the bench answers");
const root = (index: PlanIndex, device: string) => `/${index.plan.site.id}/${device}/restconf`;

interface Bench {
  readonly changes: Change[];
  readonly unsaved: string[];
  readonly starting: string[];
}
async function bench(index: PlanIndex): Promise<Bench> {
  const heard = must(await http("GET", `/${index.plan.site.id}/bench`), "the bench answers");
  const state = JSON.parse(heard.text) as Bench & { changes: unknown };
  return { ...state, changes: decodeChanges(state.changes) };
}
const asIs = async (index: PlanIndex): Promise<PlanIndex> =>
  must(stateFrom(index, (await bench(index)).changes), "a state");

/** Does an operation over HTTP; false for silence. */
async function tell(index: PlanIndex, operation: Operation): Promise<boolean> {
  const now = await asIs(index);
  const request = must(requestFor(index, now, operation), "it can be told");
  const at = root(index, operation.device);
  const heard =
    request.says === "yang"
      ? await http("PUT", `${at}/data`, `{"ietf-restconf:data":${request.text}}`)
      : await http("POST", `${at}/operations/dianome-stand-in:enter`, {
          "dianome-stand-in:input": { changes: encodeChanges(request.changes) },
        });
  if (heard !== null) expect([heard.status, heard.text]).toEqual([204, ""]);
  return heard !== null;
}

test("the runbook of the house over HTTP: devices answer as its steps say, and end as planned", async () => {
  const runbook = must(provenRunbook(HOUSE, null), "an order").runbook;
  await hand(HOUSE, { do: "begin", changes: [] });
  for (const [at, { kind, device, card, operation, isBlind }] of runbook.steps.entries()) {
    if (card !== null) await hand(HOUSE, { do: "plug", port: card.port });
    if (kind === "save")
      expect(
        (await http("POST", `${root(HOUSE, device ?? "")}/operations/dianome-stand-in:save`))?.status,
      ).toBe(204);
    if (kind !== "do" || operation === null) continue;
    if (operation.page === "power") await hand(HOUSE, { do: "power", device });
    else if (!(await tell(HOUSE, operation)))
      // The only steps without an answer say so: the laptop goes elsewhere, or the next mends it.
      expect([operation.id, isBlind || runbook.steps[at + 1]?.kind === "move"]).toEqual([operation.id, true]);
  }
  expect(driftBetween(await asIs(HOUSE), HOUSE, knowledgeOf([], true))).toEqual([]);
  expect((await bench(HOUSE)).unsaved).toEqual([]);
});

test("an edit of the plan counts at the next request: a removed device is not there any more", async () => {
  const site = HOUSE.plan.site.id;
  await hand(HOUSE, { do: "begin", changes: [] });
  const revisionNow = async () =>
    (JSON.parse(must(await http("GET", `/${site}/bench`), "it answers").text) as { revision: number })
      .revision;
  expect(await revisionNow()).toBe(1);
  const hall = must(
    [...HOUSE.plan.device.values()].find(({ kind }) => kind === "switch"),
    "a switch",
  );
  const fewer = PlanIndex.of(
    donePlan(afterEdit(HOUSE.plan, ({ edits }) => (removeDevice(edits, hall.id), null))),
  );
  plans.set(site, { revision: 2, index: fewer });
  expect(await revisionNow()).toBe(2);
  expect((await http("GET", `${root(HOUSE, hall.id)}/data`))?.status).toBe(404);
  plans.set(site, { revision: 3, index: HOUSE });
  expect(await revisionNow()).toBe(3);
});

/** The practice, with the ways between its switches still untagged in the kit's VLAN. */
const BEFORE: Plan = donePlan(
  afterEdit(fennelStreet(), ({ edits }) => {
    const kit = must(
      edits.all("vlan").find(({ vid }) => vid === 10),
      "the kit's VLAN",
    ).vid;
    for (const { id } of edits.all("port"))
      if (PRACTICE.linkAt(id) !== undefined && (edits.get("port", id)?.tagged.length ?? 0) > 1)
        edits.patch("port", id, { pvid: kit, untagged: [kit], tagged: [], admit: "all" });
    return null;
  }),
);

test("a wrong order locks one out: silent from then on, until a power cut brings back the saved", async () => {
  const box = must(foundState(PRACTICE, null), "a state");
  const found = must(foundState(PRACTICE, BEFORE), "a state");
  await hand(PRACTICE, { do: "begin", changes: encodeChanges(changesFrom(box, found)) });
  const rehearsal = must(Rehearsal.of(PRACTICE, await asIs(PRACTICE)), "a rehearsal");
  const { next } = rehearsal.after([]);
  const wrong = next
    .flatMap(({ id }) => rehearsal.ports().map(({ id: port }) => ({ operation: id, port })))
    .find((pair) => rehearsal.after([pair]).told[0]?.came === "lockedOut");
  const { operation, port } = must(wrong, "an operation that locks out");
  const move = must(rehearsal.operation(operation), "the operation");
  const { device } = move;
  const at = `${root(PRACTICE, device)}/data/ietf-interfaces:interfaces`;
  await hand(PRACTICE, { do: "plug", port });
  expect((await http("GET", at))?.status).toBe(200);
  expect(await tell(PRACTICE, move)).toBe(false);
  expect(await http("GET", at)).toBeNull();
  expect((await bench(PRACTICE)).unsaved).toEqual([device]);

  await hand(PRACTICE, { do: "powerCut", device });
  expect((await bench(PRACTICE)).starting).toEqual([device]);
  expect(await http("GET", at)).toBeNull();
  clock += 1_500;
  expect((await http("GET", at))?.status).toBe(200);
  expect((await bench(PRACTICE)).unsaved).toEqual([]);
  expect(driftBetween(await asIs(PRACTICE), found, knowledgeOf([], true))).toEqual([]);

  // Out of the box again: its own first address, and nothing that was planned.
  await hand(PRACTICE, { do: "reset", device });
  clock += 3_000;
  const now = await asIs(PRACTICE);
  expect(now.interfacesOf(device).map(({ name }) => name)).toEqual(["First address"]);
  expect((await http("GET", at))?.status).toBe(200);
  expect(nameOf(PRACTICE, "device", device)).not.toBe("");
});

describe("one device over RESTCONF", () => {
  const device = must(
    [...HOUSE.plan.device.values()].find(({ kind }) => kind === "switch"),
    "a switch",
  );
  const at = root(HOUSE, device.id);
  const ports = `${at}/data/ietf-interfaces:interfaces`;
  beforeEach(async () => {
    const box = must(foundState(HOUSE, null), "a state");
    await hand(HOUSE, { do: "begin", changes: encodeChanges(changesFrom(box, HOUSE)) });
    const rehearsal = must(Rehearsal.of(HOUSE, HOUSE), "a rehearsal");
    const port = rehearsal.ports().find(({ id }) => wayFrom(HOUSE, id, device.id) !== null);
    await hand(HOUSE, { do: "plug", port: must(port, "a port that leads to it").id });
  });

  const first = async () => {
    const heard = must(await http("GET", ports), "it answers");
    const { "ietf-interfaces:interfaces": own } = JSON.parse(heard.text) as {
      "ietf-interfaces:interfaces": { interface: { name: string; enabled: boolean; description: string }[] };
    };
    const free = own.interface.filter(({ description }) => /^port \d+$/.test(description)).at(-1);
    return { entry: must(free, "a port with nothing in it"), etag: String(heard.headers.etag) };
  };

  test("a part is merged, an entry replaced, and what has changed since is refused", async () => {
    const { entry, etag } = await first();
    const path = `${ports}/interface=${encodeURIComponent(entry.name)}`;
    const merge = { "ietf-interfaces:interface": [{ name: entry.name, enabled: !entry.enabled }] };
    expect((await http("PATCH", path, merge, { "if-match": etag }))?.status).toBe(204);
    expect((await first()).entry).toEqual({ ...entry, enabled: !entry.enabled });
    const late = must(
      await http("PUT", path, { "ietf-interfaces:interface": [entry] }, { "if-match": etag }),
      "it",
    );
    expect([late.status, late.text]).toEqual([412, expect.stringContaining("operation-failed")]);
    expect((await http("PUT", path, { "ietf-interfaces:interface": [entry] }))?.status).toBe(204);
    expect((await first()).entry).toEqual(entry);
  });

  test.each([
    ["PUT", "/data", "{", 400, "malformed-message"],
    ["PUT", "/data/ietf-interfaces:interfaces", { other: 1 }, 400, "invalid-value"],
    [
      "PUT",
      "/data/ietf-interfaces:interfaces",
      { "ietf-interfaces:interfaces": { interface: 7 } },
      400,
      "invalid-value",
    ],
    ["GET", "/data/ietf-system:system", undefined, 404, "unknown-element"],
    ["GET", "/nothing", undefined, 404, "unknown-element"],
    ["DELETE", "/data", undefined, 405, "operation-not-supported"],
    ["POST", "/operations/x:y", {}, 404, "unknown-element"],
    [
      "POST",
      "/operations/dianome-stand-in:enter",
      { "dianome-stand-in:input": { changes: [1] } },
      400,
      "invalid-value",
    ],
  ] as const)("%s %s with %j is answered %i, %s, and changes nothing", async (...told) => {
    const [method, path, body, status, tag] = told;
    const before = await bench(HOUSE);
    const heard = must(await http(method, `${at}${path}`, body), "it answers");
    expect([heard.status, heard.text]).toEqual([status, expect.stringContaining(tag)]);
    expect(await bench(HOUSE)).toEqual(before);
  });

  test("the access list that it filters by is read, and says what its rules say", async () => {
    const gateway = must(
      [...HOUSE.plan.device.values()].find(({ kind }) => kind === "gateway"),
      "a gateway",
    );
    const own = `${root(HOUSE, gateway.id)}/data/ietf-access-control-list:acls`;
    const heard = must(await http("GET", own), "it answers");
    expect([heard.status, heard.headers.etag]).toEqual([200, expect.stringMatching(/^".+"$/)]);
    const read = readRuleData(HOUSE, gateway, heard.text);
    expect(typeof read === "string" ? read : read.rules.length).toBeGreaterThan(3);
    expect((await http("PUT", own, JSON.parse(heard.text)))?.status).toBe(405);
    // A switch that only forwards has none.
    const none = must(await http("GET", `${at}/data/ietf-access-control-list:acls`), "it answers");
    expect(JSON.parse(none.text)).toEqual({ "ietf-access-control-list:acls": { acl: [] } });
  });

  test("an address that no planned segment holds has no place here, and is said", async () => {
    const { entry } = await first();
    const own = {
      name: "vlan 999",
      type: "iana-if-type:l3ipvlan",
      "ietf-ip:ipv4": { address: [{ ip: "10.9.9.9" }] },
    };
    const body = { "ietf-interfaces:interfaces": { interface: [entry, own] } };
    const heard = must(await http("PATCH", ports, body), "it answers");
    expect([heard.status, heard.text]).toEqual([400, expect.stringContaining("no segment in VLAN 999")]);
  });

  test("addresses in segments that the plan gives neither device: both keep all of theirs", async () => {
    const gateway = must(
      [...HOUSE.plan.device.values()].find(({ kind }) => kind === "gateway"),
      "a gateway",
    );
    const legs = async (of: string) => (await asIs(HOUSE)).interfacesOf(of).length;
    const before = [await legs(device.id), await legs(gateway.id)];
    const more = (vid: number, ip: string) => ({
      name: `vlan ${vid}`,
      type: "iana-if-type:l3ipvlan",
      "ietf-ip:ipv4": { address: [{ ip }] },
    });
    const body = {
      "ietf-interfaces:interfaces": { interface: [more(20, "172.19.20.9"), more(30, "172.19.30.9")] },
    };
    expect((await http("PATCH", ports, body))?.status).toBe(204);
    expect([await legs(device.id), await legs(gateway.id)]).toEqual([(before[0] ?? 0) + 2, before[1]]);
    // Power is given once: to a device that runs it does nothing.
    const state = await bench(HOUSE);
    await hand(HOUSE, { do: "power", device: device.id });
    expect(await bench(HOUSE)).toEqual(state);
  });

  test("who does not know the word is not let in; sites and devices that are not there are not", async () => {
    expect((await http("GET", at, undefined, { authorization: "Basic eDp5" }))?.status).toBe(401);
    expect((await http("GET", "/nowhere/bench"))?.status).toBe(404);
    expect((await http("GET", `/${HOUSE.plan.site.id}/nobody/restconf`))?.status).toBe(404);
    expect((await hand(HOUSE, { do: "dance", device: device.id })).status).toBe(400);
    expect((await hand(HOUSE, { do: "plug", port: "none" })).status).toBe(400);
    expect((await hand(HOUSE, { do: "begin", changes: "none" })).status).toBe(400);
  });
});
