import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { v7 } from "uuid";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { encodeBatch, encodePlan } from "@/core/formats";
import { must } from "@/core/kernel";
import { applyChanges, COLLECTION_KINDS, emptyPlan, PlanEdits, PlanIndex } from "@/core/plan";
import { dice, type Dice } from "@/core/testing/plants";
import { startDevices, type RunningDevices } from "@/stand-in/devices/server";
import { JPEG } from "../../tests/support/jpeg";
import { ask, closeStores, cookieOf, newKey, type Asked, type Handler } from "../../tests/support/handlers";
import { pick, spoiled } from "../../tests/support/spoiled";

// Requests that are almost right: whatever is in them, the answer is the thing asked for or a sentence, never
// a server that failed.

const REQUESTS = Number(process.env.FUZZ_REQUESTS ?? 600);
const plan = lockkeepersHouse();

interface Request extends Asked {
  readonly handler: Handler;
}

afterAll(closeStores);

/** A batch that changes one thing of any kind, or adds one, and is sound until it is spoiled. */
function aBatch(roll: Dice): object {
  const edits = new PlanEdits(plan);
  const kind = pick(
    roll,
    COLLECTION_KINDS.filter((collectionKind) => plan[collectionKind].size > 0),
  );
  const entity = pick(roll, [...plan[kind].values()]);
  const renamed = "name" in entity ? { name: `n${roll(1000)}` } : {};
  if (roll(3) === 0) edits.remove(kind, entity.id);
  else
    edits.put(kind, {
      ...entity,
      ...(roll(2) === 0 ? { id: v7() } : renamed),
    } as never);
  return encodeBatch({
    id: v7(),
    planner: "fuzz",
    summary: "x",
    args: null,
    changes: edits.changes(),
  }) as object;
}

/** A small plan file with its history: so small that what is spoiled is often in that. */
function aGrownFile(): object {
  const before = emptyPlan(plan.site);
  const edits = new PlanEdits(before);
  for (const zone of [...plan.zone.values()].slice(0, 2)) edits.put("zone", zone);
  const changes = edits.changes();
  const grown = applyChanges(before, changes);
  const batch = encodeBatch({ id: v7(), planner: "fuzz", summary: "x", args: { n: [1] }, changes }) as object;
  const logged = { revision: 1, by: "Ruth", at: "2026-11-30T09:00:00.000Z", undoes: null, redoes: null };
  return {
    ...(encodePlan(must(grown.ok ? grown.value : null, "two zones")) as object),
    history: [{ ...logged, ...batch }],
  };
}

/** An entry of the record: a step that was done, with what it made different. */
const aTick = (roll: Dice): object => ({
  id: v7(),
  at: "2026-11-29T09:00:00.000Z",
  do: "tick",
  after: null,
  step: { kind: "do", device: v7(), page: "vlans", title: "Create VLANs", values: [["VLAN 10", "Staff"]] },
  came: pick(roll, ["done", "differs", "cannot"]),
  read: "",
  note: "",
  photos: [v7()].slice(roll(2)),
  changes: (aBatch(roll) as { changes: unknown }).changes,
});

/** Another: a test was taken. */
const aTest = (roll: Dice): object => ({
  id: v7(),
  at: "2026-11-29T09:00:00.000Z",
  do: "test",
  test: {
    ...{ id: "lease port 1", place: "", at: "Port 1", does: "Plug in.", expected: "10.0.0.1" },
    proves: pick(roll, [null, [], ["role port 1"]]),
  },
  came: pick(roll, ["expected", "otherwise", "cannot"]),
  read: "10.9.9.9",
  says: "",
  note: "",
  photos: [v7()].slice(roll(2)),
});

/** Another: a fault was found. */
const aFault = (roll: Dice): object => ({
  id: v7(),
  at: "2026-11-29T09:00:00.000Z",
  do: "fault",
  fault: {
    ...{ id: "cable 1", kind: "cable", words: "A cable is out", mend: "Put it in." },
    explains: pick(roll, [null, [], [v7()]]),
  },
  note: "",
  changes: [],
});

/** Others, of paper: a sheet issued and signed, something remarked and seen to, labels printed. */
const onPaper = (roll: Dice): object => {
  const head = { id: v7(), at: "2026-11-30T09:00:00.000Z" };
  return pick<object>(roll, [
    {
      ...{ ...head, do: "issue", note: "" },
      sheet: { name: "Offer", recipient: "", revision: 1, form: 17, check: "ab".repeat(32), stood: ["x"] },
    },
    { ...head, do: "sign", issue: v7(), as: "checked", name: "Ruth", day: "2026-11-30", note: "" },
    {
      ...{ ...head, do: "remark", for: pick(roll, ["us", "customer"]), text: "x", isOpen: true },
      ...{ about: pick(roll, [null, { kind: "device", id: v7(), name: "x" }]), due: "2026-12-24" },
      photos: [v7()].slice(roll(2)),
    },
    { ...head, do: "close", remark: v7(), note: "" },
    { ...head, do: "photosFor", entry: v7(), for: pick(roll, ["us", "customer"]) },
    { ...head, do: "labels", printed: [["device x", "a1"]] },
  ]);
};

/** Another: a device was read. */
const aReading = (roll: Dice): object => ({
  id: v7(),
  at: "2026-11-29T09:00:00.000Z",
  do: "read",
  device: v7(),
  from: pick(roll, ["paste", "device"]),
  saw: { ports: { [v7()]: ["pvid", "tagged"] }, legs: true, vlans: false },
  changes: (aBatch(roll) as { changes: unknown }).changes,
});

/** What a browser answers with a key, with nothing in it that fits. */
const aKeyAnswer = (): object => ({
  ...{ id: "AAAA", rawId: "AAAA", type: "public-key", clientExtensionResults: {} },
  response: { clientDataJSON: "e30", attestationObject: "oA", authenticatorData: "AA", signature: "AA" },
});

/** What is done with one's account; never what would end the session of the test. */
function anAccountOrder(roll: Dice): object {
  const secret = "A".repeat(32);
  return pick<object>(roll, [
    { do: "password", old: "x", password: "a password of some length" },
    { do: "newSecret" },
    { do: "factor", password: "x", secret, code: "123456" },
    { do: "noFactor", password: "x" },
    { do: "endSession", id: v7() },
    { do: "beginPasskey", password: "x" },
    { do: "addPasskey", title: "x", answer: aKeyAnswer() },
    { do: "removePasskey", id: v7() },
  ]);
}
/** And with people and folders. */
function aPeopleOrder(roll: Dice): object {
  const on = pick<object>(roll, [
    { kind: "all" },
    { kind: "customer", id: v7() },
    { kind: "site", id: v7() },
  ]);
  const role = pick(roll, ["viewer", "field", "editor", "owner"]);
  return pick<object>(roll, [
    { do: "grant", person: v7(), on, role },
    { do: "withdraw", person: v7(), on },
    { do: "invite", person: pick(roll, [null, v7()]), on, role },
    { do: "withdrawInvitation", id: v7() },
    { do: "makeToken", title: "x", on, lastDay: "2027-01-31" },
    { do: "withdrawToken", id: v7() },
    { do: "takeOut", person: v7(), forgetName: roll(2) === 0 },
    { do: "putCustomer", id: v7(), name: `Fuzz ${roll(30)}` },
    { do: "removeCustomer", id: v7() },
    { do: "moveSite", site: v7(), customer: pick(roll, [null, v7()]) },
  ]);
}

/** Something done on stand-in devices, by hand or over the network. */
function anAct(roll: Dice): object {
  const device = pick(roll, [...plan.device.keys()]);
  const { changes } = aBatch(roll) as { changes: unknown };
  return pick<object>(roll, [
    { do: "begin", changes },
    { do: "plug", port: pick(roll, [...plan.port.keys(), null]) },
    { do: pick(roll, ["power", "powerCut", "reset"]), device },
    { do: "power", device },
    { do: "ask", device, asking: { what: "enter", says: "settings", changes } },
  ]);
}

/** Stand-in devices of whatever site is asked about. */
async function standIns(): Promise<RunningDevices> {
  const index = PlanIndex.of(plan);
  const running = await startDevices({
    port: 0,
    password: "fuzz",
    plan: () => Promise.resolve({ revision: 1, index }),
  });
  const file = join(mkdtempSync(join(tmpdir(), "fuzz-")), "stand-in-devices.json");
  writeFileSync(file, JSON.stringify({ address: `http://127.0.0.1:${running.port}`, password: "fuzz" }));
  process.env.STAND_IN_DEVICES = file;
  return running;
}

test(`${REQUESTS} requests that are almost right are answered, none by a failure of the server`, async () => {
  const running = await standIns();
  const [
    enter,
    sites,
    batches,
    undo,
    redo,
    history,
    touched,
    open,
    record,
    bench,
    read,
    photos,
    drills,
    bin,
    signIn,
    account,
    people,
    log,
    presence,
    passkey,
    links,
    exports,
    exported,
    data,
  ] = await Promise.all([
    import("@/app/api/enter/route"),
    import("@/app/api/sites/route"),
    import("@/app/api/sites/[site]/batches/route"),
    import("@/app/api/sites/[site]/undo/route"),
    import("@/app/api/sites/[site]/redo/route"),
    import("@/app/api/sites/[site]/history/route"),
    import("@/app/api/sites/[site]/touched/route"),
    import("@/app/api/sites/[site]/plan/route"),
    import("@/app/api/sites/[site]/record/route"),
    import("@/app/api/sites/[site]/stand-ins/route"),
    import("@/app/api/sites/[site]/read-device/route"),
    import("@/app/api/sites/[site]/photos/route"),
    import("@/app/api/drills/route"),
    import("@/app/api/bin/route"),
    import("@/app/api/sign-in/route"),
    import("@/app/api/account/route"),
    import("@/app/api/people/route"),
    import("@/app/api/log/route"),
    import("@/app/api/sites/[site]/presence/route"),
    import("@/app/api/passkey/route"),
    import("@/app/api/sites/[site]/links/route"),
    import("@/app/api/sites/[site]/exports/route"),
    import("@/app/api/sites/[site]/exports/[file]/route"),
    import("@/app/api/people/[person]/data/route"),
  ]);
  const key = await newKey("Ruth");
  const cookie = cookieOf(await ask(enter.POST, { method: "POST", path: "/api/enter", body: { key } }));
  const file = encodePlan(plan);
  const made = await ask(sites.POST, {
    method: "POST",
    path: "/api/sites",
    body: { by: "file", id: v7(), batch: v7(), file },
    cookie,
  });
  const { id: site } = (await made.json()) as { id: string };
  const roll = dice(1027);
  const query = () =>
    encodeURIComponent(
      String(
        pick(roll, [
          "1",
          "2",
          "99999999999999999999",
          "-1",
          "1e9",
          "NaN",
          "",
          "0x10",
          site,
          "\u0000",
          "a".repeat(3000),
        ]),
      ),
    );
  const asked = (): Request => {
    const params: Record<string, string> = {
      site:
        roll(8) === 0
          ? String(pick(roll, [v7(), "../x", "", "%27", site.toUpperCase(), "a".repeat(400)]))
          : site,
    };
    const bodyOf = (body: unknown): unknown => {
      if (roll(20) === 0) return JSON.stringify(body).slice(0, roll(200));
      return roll(4) === 0 ? body : spoiled(body, roll);
    };
    const post = (handler: Handler, body: unknown): Request => ({
      handler,
      method: "POST",
      path: "/api/any",
      body: bodyOf(body),
      params,
    });
    const get = (handler: Handler, name: string): Request => ({
      handler,
      method: "GET",
      path:
        `/api/any${name === "" ? "" : `?${name}=${roll(2) === 0 ? roll(9) : query()}`}` +
        (roll(4) === 0 ? `${name === "" ? "?" : "&"}about=${query()}` : ""),
      body: undefined,
      params,
    });
    // What hangs on no site has nothing in its address.
    const bare = (request: Request): Request => ({ ...request, params: {} });
    switch (roll(32)) {
      case 0:
        return bare(
          post(sites.POST, {
            ...{ by: "file", id: v7(), batch: v7() },
            file: roll(2) === 0 ? file : aGrownFile(),
          }),
        );
      case 1:
        return bare(
          post(sites.POST, {
            by: "name",
            id: v7(),
            name: "A site",
            kind: "office",
            timeZone: "Europe/Paris",
          }),
        );
      case 2:
        return post(undo.POST, {
          id: v7(),
          settled: [{ id: v7(), field: "name", keep: "mine" }].slice(roll(2)),
        });
      case 3:
        return post(redo.POST, {
          id: v7(),
          settled: [{ id: v7(), field: "name", keep: "mine" }].slice(roll(2)),
        });
      case 4:
        return roll(2) === 0
          ? get(history.GET, pick(roll, ["before", "before=9&about", "before=9&by", "before=9&from"]))
          : get(touched.GET, pick(roll, ["before", "before=9&about", `about=${v7()}&before`]));
      case 5:
        return get(batches.GET, "after");
      case 6:
        return get(open.GET, "");
      case 7:
        return bare(post(enter.POST, { key, name: "Ruth", password: "a password of some length" }));
      case 8:
        return get(record.GET, "after");
      case 9:
        return post(record.POST, { entries: [pick(roll, [aReading, aTick, aTest, aFault, onPaper])(roll)] });
      case 10:
        return post(bench.POST, anAct(roll));
      case 11:
        return post(read.POST, { address: "10.24.10.3", user: "x", password: "y", fingerprint: "" });
      case 12:
        return post(photos.POST, { id: v7(), jpeg: Buffer.from(JPEG).toString("base64") });
      case 13:
        return bare(
          post(drills.POST, {
            id: v7(),
            what: "course",
            number: 1 + roll(20),
            isSolved: true,
            score: roll(80),
          }),
        );
      case 14:
        return bare(post(bin.POST, { site: v7(), do: pick(roll, ["bringBack", "forget"]) }));
      case 15:
        return bare(post(signIn.POST, { name: "Nobody", password: "x", code: pick(roll, [null, "123456"]) }));
      case 16:
        return bare(post(account.POST, anAccountOrder(roll)));
      case 17:
        return bare(post(people.POST, aPeopleOrder(roll)));
      case 18:
        return bare(get(log.GET, "before"));
      case 19:
        return post(presence.POST, {
          is: pick(roll, ["here", "gone", "here"]),
          tab: v7(),
          sheet: "ports",
          things: [v7()].slice(roll(2)),
        });
      case 20:
        return bare(post(passkey.POST, pick(roll, [{ do: "ask" }, { do: "prove", answer: aKeyAnswer() }])));
      case 21:
        return post(links.POST, {
          ...{ do: "make", issue: v7(), reader: "customer", title: "x", lastDay: "2027-01-31" },
        });
      case 22:
        return roll(2) === 0
          ? post(exports.POST, { file: "ports.csv" })
          : get(pick(roll, [exports.GET, links.GET]), "");
      case 23: {
        const named = get(exported.GET, "");
        const wanted = pick(roll, ["hosts", "ports.csv", "plan.json", "../x", "\u0000", "a".repeat(300)]);
        return { ...named, params: { ...named.params, file: wanted } };
      }
      case 24:
        return { ...get(data.GET, ""), params: { person: pick(roll, [v7(), "../x", ""]) } };
      default:
        return post(batches.POST, { revision: 1 + roll(5), batch: aBatch(roll) });
    }
  };
  const statuses = new Map<number, number>();
  const wrong: string[] = [];
  let slowest = 0;
  for (let i = 0; i < REQUESTS; i += 1) {
    const request = asked();
    const began = performance.now();
    const answer = await ask(request.handler, { ...request, cookie });
    slowest = Math.max(slowest, performance.now() - began);
    statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
    if (answer.status >= 500)
      wrong.push(
        `${answer.status} to ${request.method} ` +
          `${JSON.stringify(request.body)?.slice(0, 400) ?? request.path ?? ""}`,
      );
    else if (answer.status >= 400) {
      const { sentence } = (await answer.json()) as { sentence?: unknown };
      const isSentence = typeof sentence === "string" && /^\S.*[.?]$/su.test(sentence);
      if (!isSentence || /\bat \S+:\d+:\d+|node_modules/.test(sentence))
        wrong.push(`${answer.status} says ${JSON.stringify(sentence)}`);
    }
  }
  await running.close();
  console.info(
    `${REQUESTS} requests: ${[...statuses]
      .sort(([a], [b]) => a - b)
      .map(([status, count]) => `${count} × ${status}`)
      .join(", ")}; the slowest took ${Math.round(slowest)} ms`,
  );
  expect(wrong).toEqual([]);
  // Both sides of the door were met: some were right all the same, most were refused.
  expect(statuses.get(200) ?? 0).toBeGreaterThan(REQUESTS / 20);
  expect(statuses.get(400) ?? 0).toBeGreaterThan(REQUESTS / 4);
});
