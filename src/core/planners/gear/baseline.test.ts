import { fennelStreet } from "../../../../demo/fennel-street";
import { bramblewick } from "../../../../demo/bramblewick";
import { must } from "../../kernel";
import { LACKS, PlanIndex, WAYS_IN, type Baseline, type Plan } from "../../plan";
import { afterEdit, donePlan } from "../../testing/after-edit";
import {
  BASELINE_FIELDS,
  baselineText,
  clockText,
  LACK_WORDS,
  lacksText,
  readBaseline,
  readLacks,
} from "./baseline-text";
import { baselineFor, beyondDevice, baselineTable, offBaseline, pasteGear, toBaseline } from "./baseline";

const practice = fennelStreet();
const deviceIn = (plan: Plan, name: string) =>
  must(
    [...plan.device.values()].find((device) => device.name === name),
    name,
  );
const site = practice.site.id;

const VALUES: readonly Partial<Baseline>[] = [
  ...WAYS_IN.map((way) => ({ waysIn: [way] })),
  { waysIn: ["https", "ssh", "snmpV3"] },
  { waysIn: [] },
  { idleMinutes: null },
  { idleMinutes: 1440 },
  { passwordLength: 128 },
  { passwordDays: null },
  { passwordDays: 0 },
  { passwordDays: 365 },
  { nameServers: [] },
  { nameServers: practice.site.baseline.nameServers },
  { clock: "open" },
  { clock: "site" },
  { clock: "utc" },
  { uplinks: "open" },
  { uplinks: "byHand" },
  { uplinks: "automatic" },
  { describes: "open" },
  { describes: "yes" },
  { describes: "no" },
];

test.each(VALUES.map((value) => [JSON.stringify(value), value] as const))(
  "%s is written so that it can be read again",
  (_, value) => {
    const baseline = { ...practice.site.baseline, ...value };
    for (const [field] of BASELINE_FIELDS)
      expect(readBaseline(field, baselineText(baseline, field))).toEqual({ [field]: baseline[field] });
  },
);

test.each([
  ["waysIn", "https; ftp", /"ftp" is no way in; write some of web over TLS,/],
  ["waysIn", "HTTPS + ssh2, SNMP v3", { waysIn: ["https", "ssh", "snmpV3"] }],
  ["waysIn", "web, snmp v2c, console only", { waysIn: ["http", "snmpV2", "console"] }],
  ["idleMinutes", "0", /whole minutes from 1 to 1440/],
  ["idleMinutes", "5 minutes", { idleMinutes: 5 }],
  ["passwordLength", "correct horse", /The password itself is never written down here/],
  ["passwordLength", "129", /from 1 to 128/],
  ["passwordDays", "often", /write 365 days, or never/],
  ["passwordDays", "90 d", { passwordDays: 90 }],
  ["timeServers", "10.0.0.300", /"10\.0\.0\.300" is not an address/],
  ["logTo", "10.0.0.1, 10.0.0.2, 10.0.0.3, 10.0.0.4, 10.0.0.5", /At most 4/],
  ["clock", "Mars", /the site's own time zone, or UTC/],
  ["clock", "local time", { clock: "site" }],
  ["uplinks", "sometimes", /"by hand" or "automatic"/],
  ["describes", "perhaps", /"perhaps" is neither yes nor no/],
] as const)("%s typed as %j", (field, text, expected) => {
  const read = readBaseline(field, text);
  if (expected instanceof RegExp) expect(read).toMatch(expected);
  else expect(read).toEqual(expected);
});

test("what a device lacks is said in words that are read again, and by its own names", () => {
  const device = { abilities: { ...deviceIn(practice, "Gateway").abilities, lacks: [...LACKS] } };
  expect(readLacks(lacksText(device))).toEqual([...LACKS]);
  expect(readLacks("LOG; snmpv3")).toEqual(["snmpV3", "log"]);
  expect(readLacks("a soul")).toMatch(/"a soul" is nothing that a baseline asks for/);
  expect(Object.keys(LACK_WORDS)).toEqual([...LACKS]);
});

test("the clock says the zone with its summer time", () => {
  const at = (timeZone: string) =>
    clockText({ plan: { ...practice, site: { ...practice.site, timeZone } } }, practice.site.baseline);
  expect([at("Europe/London"), at("Asia/Kolkata"), at("Nowhere/Land")]).toEqual([
    "Europe/London: UTC in January, UTC+01:00 in July",
    "Asia/Kolkata: UTC+05:30, no summer time",
    "Nowhere/Land",
  ]);
});

test("what the site decides goes to the devices that followed; exceptions stay, and are found", () => {
  const own = donePlan(
    afterEdit(practice, (context) =>
      pasteGear(context, [["30 min"]], "idleMinutes", [deviceIn(practice, "Switch B").id]),
    ),
  );
  expect(offBaseline({ plan: own }, deviceIn(own, "Switch B"))).toEqual(["idleMinutes"]);
  const decided = donePlan(
    afterEdit(own, (context) => pasteGear(context, [["5 min"]], "idleMinutes", [site])),
  );
  const minutes = [...decided.device.values()].map(({ name, baseline }) => [name, baseline.idleMinutes]);
  expect(minutes).toContainEqual(["Switch B", 30]);
  expect(minutes.filter(([, idle]) => idle === 5)).toHaveLength(7);
  const alike = donePlan(
    afterEdit(decided, (context) => toBaseline(context, [deviceIn(decided, "Switch B").id])),
  );
  expect(deviceIn(alike, "Switch B").baseline.idleMinutes).toBe(5);
  expect(
    deviceIn(
      donePlan(
        afterEdit(decided, (context) => toBaseline(context, [deviceIn(decided, "Switch B").id], ["waysIn"])),
      ),
      "Switch B",
    ).baseline.idleMinutes,
  ).toBe(30);
});

test("what a device can't do is left out on it and said; what it still can of it stays", () => {
  const lacking = donePlan(
    afterEdit(practice, ({ edits }) => {
      const { id, abilities } = deviceIn(practice, "Switch B");
      edits.patch("device", id, { abilities: { ...abilities, lacks: ["https", "time", "descriptions"] } });
      return null;
    }),
  );
  const device = deviceIn(lacking, "Switch B");
  expect(beyondDevice({ plan: lacking }, device)).toEqual(["waysIn", "timeServers", "describes"]);
  const wanted = baselineFor(lacking.site.baseline, device);
  expect([wanted.waysIn, wanted.timeServers, wanted.describes, wanted.idleMinutes]).toEqual([
    ["ssh"],
    [],
    "open",
    10,
  ]);
  // A new decision that it can't follow leaves it as it is.
  const decided = donePlan(
    afterEdit(lacking, (context) => pasteGear(context, [["10.24.60.10"]], "timeServers", [site])),
  );
  expect(deviceIn(decided, "Switch B").baseline.timeServers).toEqual(device.baseline.timeServers);
});

test("the table is pasted back as saved; too many rows, and texts for the whole site, are refused", () => {
  const works = bramblewick();
  const devices = [...works.device.values()];
  const [, whole = [], ...rows] = baselineTable(PlanIndex.of(works), devices);
  const onto = [works.site.id, ...devices.map(({ id }) => id)];
  const again = afterEdit(works, (context) =>
    pasteGear(
      context,
      [whole, ...rows].map((row) => row.slice(1)),
      "waysIn",
      onto,
    ),
  );
  expect(donePlan(again)).toEqual(works);
  expect(
    afterEdit(works, (context) => pasteGear(context, [["5"], ["6"]], "idleMinutes", [works.site.id])),
  ).toMatch(/more rows than devices/);
  expect(afterEdit(works, (context) => pasteGear(context, [["SN 1"]], "serial", [works.site.id]))).toBe(
    "Serial number is of one device, not of the whole site.",
  );
});

test("gear that knows no VLANs has nothing to administer, and is left alone", () => {
  const plain = donePlan(
    afterEdit(practice, ({ edits }) => {
      edits.patch("device", deviceIn(practice, "Switch B").id, { bridging: "plain" });
      return null;
    }),
  );
  const { id } = deviceIn(plain, "Switch B");
  expect(afterEdit(plain, (context) => pasteGear(context, [["5 min"]], "idleMinutes", [id]))).toMatch(
    /Switch B has no settings of its own to administer/,
  );
  const decided = donePlan(
    afterEdit(plain, (context) => pasteGear(context, [["5 min"]], "idleMinutes", [site])),
  );
  expect(deviceIn(decided, "Switch B").baseline.idleMinutes).toBe(10);
});
