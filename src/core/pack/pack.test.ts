import { z } from "zod";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { formatAddress } from "../address";
import { acceptedAs, listFindings, runChecks } from "../checks";
import { must } from "../kernel";
import {
  applyChanges,
  COLLECTION_KINDS,
  PlanEdits,
  PlanIndex,
  SCHEMAS,
  type Entity,
  type Kind,
  type Plan,
} from "../plan";
import type { Recorded, RecordEntry } from "../records";
import { testId } from "../testing/build-plan";
import { packFor, packStudy, partsFor, READERS, reportFor, type PackOf, type Reader } from "./index";

const AT = "2026-11-30T09:00:00.000Z";
const by = (entry: RecordEntry): Recorded => ({ by: "Ruth", entry });
const asItIs = (plan: Plan, more: Partial<PackOf> = {}): PackOf => ({
  plan,
  revision: 7,
  today: "2026-11-30",
  record: [],
  sheet: null,
  before: null,
  made: AT,
  ...more,
});
const textOf = (of: PackOf, reader: Reader, leftOut: readonly string[] = []): string =>
  JSON.stringify(packFor(packStudy(of), reader, leftOut));

const SITES = [fennelStreet(), lockkeepersHouse(), bramblewick()];

test.each(SITES)(
  "$site.name: the next installer reads of every device, VLAN, segment and address",
  (plan) => {
    const text = textOf(asItIs(plan), "installer");
    const wanted = [
      ...[...plan.device.values()].map(({ name }) => name),
      ...[...plan.vlan.values()].flatMap(({ vid, name }) => [String(vid), name]),
      ...[...plan.segment.values()].map(({ name }) => name),
      ...[...plan.host.values()].flatMap(({ name, ipv4, ipv6 }) => [
        name,
        ...[ipv4, ipv6].flatMap((address) => (address === null ? [] : [formatAddress(address)])),
      ]),
      ...[...plan.interface.values()].flatMap(({ addresses4, addresses6 }) =>
        [...addresses4, ...addresses6].map(formatAddress),
      ),
      ...[...plan.link.values()].map(({ label }) => label),
    ];
    expect(wanted.filter((words) => !text.includes(JSON.stringify(words).slice(1, -1)))).toEqual([]);
  },
);

test("each reader gets the parts that something stands in, without those that were left out", () => {
  const of = asItIs(fennelStreet());
  for (const reader of READERS) {
    const keys = packFor(packStudy(of), reader).parts.map(({ key }) => key);
    const offered = partsFor(reader).map(({ key }) => key);
    // Nothing was remarked.
    expect(keys).toEqual(offered.filter((key) => key !== "remarks"));
    const [, second = ""] = keys;
    const fewer = packFor(packStudy(of), reader, [second]).parts.map(({ key }) => key);
    expect(fewer).toEqual(keys.filter((key) => key !== second));
  }
});

// Marks in every text that anybody can write, looked for in what leaves the office.

const isJson = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);
/** Every text within a value, with the way to it and a value in which it is another one. */
function* texts(value: unknown, path: string): Generator<{ path: string; with: (text: string) => unknown }> {
  if (typeof value === "string") yield { path, with: (text) => text };
  const listed = Array.isArray(value) ? value.map((item, at) => [String(at), item as unknown] as const) : [];
  const inner: readonly (readonly [string, unknown])[] = isJson(value) ? Object.entries(value) : listed;
  for (const [name, part] of inner)
    for (const found of texts(part, Array.isArray(value) ? path : `${path}.${name}`))
      yield {
        path: found.path,
        with: (text) =>
          Array.isArray(value)
            ? value.map((other, at) => (String(at) === name ? found.with(text) : (other as unknown)))
            : { ...(value as object), [name]: found.with(text) },
      };
}

/** A plan in which every free text is a mark, and which field each mark is in. */
function marked(plan: Plan): { readonly plan: Plan; readonly fields: ReadonlyMap<string, string> } {
  const fields = new Map<string, string>();
  const edits = new PlanEdits(plan);
  const mark = (kind: Kind, entity: Entity) => {
    let now = z.encode(SCHEMAS[kind] as z.ZodType, entity) as unknown;
    for (const { path } of [...texts(now, kind)]) {
      const spot = [...texts(now, kind)].filter((text) => text.path === path);
      for (const [at] of spot.entries()) {
        const word = `zq${fields.size}x`;
        const tried = must([...texts(now, kind)].filter((text) => text.path === path)[at], path).with(word);
        const before = JSON.stringify(now);
        if (before.includes(word) || !(SCHEMAS[kind] as z.ZodType).safeParse(tried).success) continue;
        now = tried;
        fields.set(word, path);
      }
    }
    edits.put(kind, (SCHEMAS[kind] as z.ZodType).parse(now) as never);
  };
  mark("site", plan.site);
  for (const kind of COLLECTION_KINDS) for (const entity of plan[kind].values()) mark(kind, entity);
  const applied = applyChanges(plan, edits.changes());
  return { plan: must(applied.ok ? applied.value : null, "the marked plan"), fields };
}

/** A remark for the customer, and one of the office's own. */
const remark = (text: string, whose: "us" | "customer"): RecordEntry => ({
  id: testId("remark", text),
  at: AT,
  do: "remark",
  about: null,
  for: whose,
  text,
  isOpen: true,
  due: "2026-12-24",
  photos: [],
});

/** Accepts the first finding of a plan, with a mark for its reason. */
function withAcceptance(plan: Plan, reason: string): Plan {
  const index = PlanIndex.of(plan, "2026-11-30");
  const finding = must(listFindings(runChecks(index))[0], "a finding");
  const edits = new PlanEdits(plan);
  edits.put("acceptance", {
    id: testId("acceptance", "first"),
    ...acceptedAs(index, finding),
    reason,
    by: "zqBy",
    until: null,
  });
  const applied = applyChanges(plan, edits.changes());
  return must(applied.ok ? applied.value : null, "with what was accepted");
}

const { plan: MARKED, fields: FIELDS } = marked(fennelStreet());
const RECORD = [remark("zqOurs", "us"), remark("zqTheirs", "customer")].map(by);
const found = (text: string): string[] =>
  [...new Set([...text.matchAll(/zq\d+x/g)].map(([word]) => FIELDS.get(word) ?? word))].sort();

test.each(SITES.map((plan) => [plan.site.name, marked(plan)] as const))(
  "%s: notes and remarks of the office's own are in no pack, those for the customer are in each",
  (_, { plan, fields }) => {
    const of = asItIs(plan, { record: RECORD, before: { name: "A Offer", plan: fennelStreet() } });
    const isNote = (field: string) => /\.notes?$/.test(field) && field !== "rule.note";
    expect([...fields.values()].filter(isNote)).not.toEqual([]);
    for (const reader of READERS) {
      const text = textOf(of, reader);
      const inIt = [...text.matchAll(/zq\d+x/g)].map(([word]) => fields.get(word) ?? word);
      expect(inIt.filter(isNote)).toEqual([]);
      expect([text.includes("zqTheirs"), text.includes("zqOurs")]).toEqual([true, false]);
    }
  },
);

const FOR_ALL = [
  ...["site.name", "site.paper.agreed", "site.paper.customer", "site.paper.firm"],
  ...["device.feed", "device.name", "device.place"],
];

test("a customer's pack holds what a customer is told, and none of the insides of security", () => {
  const of = asItIs(withAcceptance(MARKED, "zqReason"), { record: RECORD });
  const text = textOf(of, "customer");
  expect(found(text)).toEqual(
    [
      ...FOR_ALL,
      ...["site.paper.calls", "gear.name", "line.name", "segment.name", "ssid.name", "zone.name"],
    ].sort(),
  );
  expect([text.includes("zqReason"), text.includes("zqBy")]).toEqual([true, true]);
  expect(text.match(/\b\d{1,3}\.\d{1,3}\.\d{1,3}\.\d{1,3}\b|\b(?:[\da-f]{2}:){5}[\da-f]{2}\b/)).toBeNull();
});

test("an electrician's pack holds cables, sockets and power", () => {
  expect(found(textOf(asItIs(MARKED), "electrician"))).toEqual(
    [
      ...FOR_ALL,
      ...["device.backupFeed", "device.model", "host.name", "host.place", "line.name"],
      ...["link.label", "link.panel", "link.socket", "port.label", "segment.name"],
    ].sort(),
  );
});

test("where words and keys are kept is for the next installer alone", () => {
  const has = READERS.filter((reader) =>
    found(textOf(asItIs(MARKED), reader)).some((field) => /credentialsPlace|secretPlace/.test(field)),
  );
  expect(has).toEqual(["installer"]);
});

const issue = (name: string, revision: number): RecordEntry => ({
  id: testId("issue", name),
  at: AT,
  do: "issue",
  sheet: {
    name,
    recipient: "the practice",
    revision,
    form: 17,
    check: "0123456789abcdef".repeat(4),
    stood: ["no finding is open"],
  },
  note: "",
});

test("the papers of a sheet say what was known when it was issued, and who signed it since", () => {
  const record = [
    issue("Offer", 3),
    remark("before it was built", "customer"),
    issue("As built", 7),
    {
      id: testId("sign", "x"),
      at: AT,
      do: "sign",
      issue: testId("issue", "As built"),
      as: "accepted",
      name: "Imogen",
      day: "2026-12-01",
      note: "",
    } as const,
    remark("long after", "customer"),
  ].map(by);
  const of = asItIs(fennelStreet(), { record, sheet: testId("issue", "As built") });
  const pack = packFor(packStudy(of), "customer");
  expect(pack.block).toMatchObject({
    sheet: "B As built",
    revision: "7",
    drawn: "Ruth, 30 Nov 2026 09:00",
    accepted: "Imogen, 1 Dec 2026",
    check: "0123 4567 89ab cdef",
  });
  const text = JSON.stringify(pack);
  expect([text.includes("before it was built"), text.includes("long after")]).toEqual([true, false]);
  expect(JSON.stringify(packFor(packStudy(asItIs(fennelStreet(), { record })), "customer"))).toContain(
    "long after",
  );
});

test("what is otherwise than in the sheet before is told thing by thing, without what was noted", () => {
  const plan = fennelStreet();
  const edits = new PlanEdits(plan);
  const [host] = plan.host.values();
  edits.patch("host", must(host, "a host").id, { name: "Renamed", notes: "the lock is broken" });
  const applied = applyChanges(plan, edits.changes());
  const now = must(applied.ok ? applied.value : null, "edited");
  const text = textOf(asItIs(now, { before: { name: "A Offer", plan } }), "installer");
  expect(text.includes("Otherwise than in A Offer")).toBe(true);
  expect(text.includes(`name: ${must(host, "a host").name} became Renamed`)).toBe(true);
  expect(text.includes("the lock is broken")).toBe(false);
});

test.each(SITES)("$site.name: cautions are those that its own gear calls for", (plan) => {
  const text = textOf(asItIs(plan), "installer");
  expect([text.includes("stop a machine"), text.includes("Never look into a fibre")]).toEqual([
    plan.site.kind === "industrial",
    [...plan.link.values()].some(({ medium }) => medium === "fibre"),
  ]);
});

test("photos of the customer's remarks leave, those of ours and those that were taken out do not", () => {
  const ids = ["a", "b", "c"].map((name) => testId("photo", name));
  const [kept = "", out = "", ours = ""] = ids;
  const record = [
    by({ ...remark("zqTheirs", "customer"), photos: [kept, out] } as RecordEntry),
    by({ ...remark("zqOurs", "us"), photos: [ours] } as RecordEntry),
    by({ id: testId("out", "x"), at: AT, do: "takeOut", photo: out }),
  ];
  for (const reader of READERS) {
    const text = textOf(asItIs(fennelStreet(), { record }), reader);
    expect([kept, out, ours].map((id) => text.includes(id))).toEqual([true, false, false]);
  }
});

test("photos are ours until somebody says that they are the customer's; the last word counts", () => {
  const [step = "", reading = ""] = ["s", "r"].map((name) => testId("photo", name));
  const took = { note: "zqNote", came: "expected", read: "", says: "zqInside" } as const;
  const [tick, test] = ["tick", "test"].map((name) => testId(name, "photos"));
  const device = must([...fennelStreet().device.values()][0], "a device");
  const done = [
    by({
      ...{ id: must(tick, "an id"), at: AT, do: "tick", after: null, came: "done", read: "", note: "zqNote" },
      step: { kind: "do", device: device.id, page: null, title: "zqInside", values: [] },
      photos: [step],
      changes: [],
    }),
    by({
      ...{ id: must(test, "an id"), at: AT, do: "test", ...took },
      test: {
        id: "look at it",
        place: "Cabinet A",
        at: "zqInside",
        does: "zqInside",
        expected: "",
        proves: null,
      },
      photos: [reading],
    }),
  ];
  let said = 0;
  const whose = (entry: string | undefined, whom: "us" | "customer") =>
    by({
      ...{ id: testId("whose", `${(said += 1)}`), at: AT, do: "photosFor" },
      ...{ entry: must(entry, "an id"), for: whom },
    });
  const shown = (...more: Recorded[]) => {
    const part = packFor(
      packStudy(asItIs(fennelStreet(), { record: [...done, ...more] })),
      "customer",
    ).parts.find(({ key }) => key === "remarks");
    return (part?.blocks ?? []).flatMap((block) => (block.is === "photo" ? [block] : []));
  };
  expect(shown()).toEqual([]);
  const [of, at] = shown(whose(tick, "customer"), whose(test, "customer"));
  expect([of?.photo, at?.photo]).toEqual([step, reading]);
  expect(of?.caption).toMatch(new RegExp(`^${device.name}, `));
  expect(at?.caption).toMatch(/^Cabinet A, /);
  const back = shown(whose(tick, "customer"), whose(test, "customer"), whose(tick, "us"));
  expect(back.map(({ photo }) => photo)).toEqual([reading]);
});

test("a cable's last test stands in the schedule, and with the electrician's tests; others do not", () => {
  const plan = fennelStreet();
  const [link] = plan.link.values();
  const reading = (id: string, read: string, proves: readonly string[] | null): RecordEntry => ({
    id: testId("test", id + read),
    at: AT,
    do: "test",
    test: { id, place: "Cabinet A", at: "port", does: "Test.", expected: "1 m", proves },
    came: "expected",
    read,
    says: "",
    note: "zqNote",
    photos: [],
  });
  const cable = `cable ${must(link, "a cable").id}`;
  const record = [
    reading(cable, "first 1.4 m", [cable]),
    reading(cable, "then 1.2 m", [cable]),
    reading("look at it", "1 Gbit/s", ["speed x"]),
    reading("lease port 1", "10.24.20.41", ["role port"]),
  ].map(by);
  const parts = packFor(packStudy(asItIs(plan, { record })), "electrician").parts;
  const part = (key: string) => JSON.stringify(parts.find((part) => part.key === key));
  expect(part("cables").includes("as expected, then 1.2 m")).toBe(true);
  expect(part("cables").includes("first 1.4 m")).toBe(false);
  expect(
    ["then 1.2 m", "1 Gbit/s", "10.24.20.41", "zqNote"].map((text) => part("cable-tests").includes(text)),
  ).toEqual([true, true, false, false]);
});

test("what passes beside the walls is told to a customer, too, as long as it holds", () => {
  const plan = fennelStreet();
  const [exception] = plan.exception.values();
  expect(plan.exception.size).toBe(1);
  const until = (lastDay: string | null): string => {
    const edits = new PlanEdits(plan);
    edits.patch("exception", must(exception, "an exception").id, { lastDay });
    const applied = applyChanges(plan, edits.changes());
    return textOf(asItIs(must(applied.ok ? applied.value : null, "its days")), "customer");
  };
  const says = "1 exception lets single devices or networks through besides.";
  expect(["2026-11-29", "2026-11-30", null].map((day) => until(day).includes(says))).toEqual([
    false,
    true,
    true,
  ]);
  const leads = "1 port forward leads in from the internet.";
  const has = (plan: Plan) => textOf(asItIs(plan), "customer").includes(leads);
  // The home has one, the practice none.
  expect([has(lockkeepersHouse()), has(plan)]).toEqual([true, false]);
});

test("a customer reads how many findings are open, and of none where none is", () => {
  const open = (plan: Plan) => listFindings(runChecks(PlanIndex.of(plan, "2026-11-30"))).length;
  const says = (plan: Plan) =>
    / (\d+) findings? (?:is|are) still open/.exec(
      ` ${textOf(asItIs(plan), "customer").replaceAll('"', " ")}`,
    )?.[1];
  expect(SITES.map((plan) => says(plan) ?? "0")).toEqual(SITES.map((plan) => String(open(plan))));
  expect(SITES.map(open)).toEqual(expect.arrayContaining([0]));
});

test("the job report tells what was done and what is open, of the customer's own only", () => {
  const record = [...RECORD, by({ ...remark("zqSeen", "us"), id: testId("remark", "seen") } as RecordEntry)];
  const text = JSON.stringify(reportFor(packStudy(asItIs(fennelStreet(), { record }))));
  expect([text.includes("zqTheirs"), text.includes("zqOurs"), text.includes("zqSeen")]).toEqual([
    true,
    false,
    false,
  ]);
  expect(text.includes("24 Dec 2026")).toBe(true);
  expect(text.includes("Ruth, 09:00 to 09:00")).toBe(true);
});
