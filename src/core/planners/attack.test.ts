/* eslint-disable max-lines -- one list: a row for each field that takes text */
import fc from "fast-check";
import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { decodeChanges, encodeChanges } from "../formats";
import { must } from "../kernel";
import { applyChanges, PlanIndex, vid as asVid, type Plan } from "../plan";
import { testId } from "../testing/build-plan";
import {
  addGear,
  addHostKind,
  addLine,
  addRoom,
  editGear,
  editRoom,
  GEAR_FIELDS,
  pasteRooms,
  ROOM_FIELDS,
  setAliases,
} from "./site/edit-survey";
import { addOption, editSegmentField, SEGMENT_FIELDS } from "./segments/segment-fields";
import { editLineText, LINE_FIELDS, SITE_FIELDS, addKeptClear, editSite } from "./site/edit-site";
import { numberAll6 } from "./addressing/number6";
import { setDeviceVlans, setVlanNameLimit } from "./gear/device-vlans";
import { splitSegment } from "./addressing/split-merge";
import { addDevice, connectPorts } from "./gear/add-device";
import { addHost, editHostCell, HOST_COLUMNS } from "./register/host-cell";
import { addLeg, setLegAddress } from "./addressing/legs";
import { addSegment } from "./segments/add-segment";
import { addSsid, setNameSchool, editSsid } from "./wireless/ssid";
import {
  DEVICE_FIELDS,
  editDevice,
  editLink,
  notePorts,
  setAsksFrom,
  setHostFields,
  setSegmentFields,
} from "./site/set-fields";
import { DEVICE_MODELS } from "../catalogue";
import { editSegmentCell, SEGMENT_COLUMNS } from "./segments/segment-cell";
import { makeLag, setPatch, labelCables } from "./gear/edit-cabling";
import { makeWan, makeWayBack, parkInVlan, setMacLimit, setProfile, editPort } from "./ports/port-roles";
import { movePool } from "./addressing/move-pool";
import { putModel } from "./gear/own-models";
import { setChannel, setChannels } from "./wireless/radios";
import { setCrossing } from "./ports/crossing";
import { setOwnNetwork, OWN_FIELDS, setOutside, OUTSIDE_FIELDS } from "./register/own-network";
import { setSoftwareNames } from "./ports/software-names";
import { addStack } from "./gear/add-stack";
import { addTemplate } from "./site/templates";
import { parseService } from "./segments/service-text";
import { plan as runPlanner, type EditContext, type Refusal } from "./planner";
import { pasteHosts, pasteSegments } from "./register/table-paste";

// Whatever a person (or a spreadsheet) puts into a field: it is either refused with a sentence, or what it
// leads to is a plan that can be applied, stored and read back. Nothing throws, nothing half-written stays.

const PLANS: readonly Plan[] = [fennelStreet(), bramblewick()];
/** Texts near what fields take, and texts far from it. */
const near = fc.oneof(
  fc.constantFrom(
    "",
    " ",
    "-",
    "–",
    ".1",
    ".300",
    "60.10",
    "10.24.20.0/24",
    "10.24.20.1/25",
    "0.0.0.0/0",
    "255.255.255.255",
    "10.24.20.0/33",
    "fd00::/64",
    "fd00::1",
    "::",
    "KT",
    "kt",
    "Staff",
    "staff",
    "0",
    "1",
    "4094",
    "4095",
    "99999999999",
    "1e3",
    "-1",
    "8 h",
    "0 s",
    "366 d",
    "02:5a:10:00:00:01",
    "025a.1000.0001",
    "ff:ff:ff:ff:ff:ff",
    "Upper switch 13",
    "behind PC Office 1",
    "Fennel Staff",
    ".40-.99",
    ".99-.40",
    ".40–.99",
    "10.24.0.0-10.24.255.255",
    "static",
    "reserved",
    "by DHCP",
    "2027-02-30",
    "2027-06-30",
    "backup tcp 8007",
    "x tcp 0",
    "ping6 icmp 5",
    "38",
    "38,5",
    "192.168.177.0/24 the box",
  ),
  fc.string({ maxLength: 200 }),
  fc.string({ unit: "binary", maxLength: 40 }),
  fc.ipV4(),
  fc.ipV6(),
  fc.integer().map(String),
  fc.tuple(fc.ipV4(), fc.integer({ min: -1, max: 34 })).map(([a, n]) => `${a}/${n}`),
);

const pickId = (items: ReadonlyMap<string, unknown>, n: number): string =>
  must([...items.keys()][n % items.size], "an entity");

/** Runs an edit on a fresh draft and holds it to the rule above. */
function hold(plan: Plan, edit: (context: EditContext) => Refusal | void): "refused" | "written" {
  let n = 0;
  const { batch, refusal } = runPlanner(
    PlanIndex.of(plan),
    () => testId("attack", `${(n += 1)}`),
    { planner: "attack", summary: "", args: null },
    edit,
  );
  if (batch === null) {
    expect(refusal).toMatch(/^\S.{10,}[.:?]?/s);
    expect(refusal).not.toMatch(/undefined|\[object|NaN/);
    return "refused";
  }
  const applied = applyChanges(plan, batch.changes);
  if (!applied.ok) throw new Error(`written, and yet it can't be applied: ${JSON.stringify(applied.error)}`);
  expect(decodeChanges(JSON.parse(JSON.stringify(encodeChanges(batch.changes))))).toEqual(batch.changes);
  return "written";
}

interface Attack {
  readonly site: number;
  readonly n: number;
  readonly text: string;
  readonly other: string;
  readonly pick: number;
}
const anyAttack: fc.Arbitrary<Attack> = fc.record({
  site: fc.nat(PLANS.length - 1),
  n: fc.nat(999),
  text: near,
  other: near,
  pick: fc.nat(99),
});

const FIELDS: readonly [
  string,
  (attack: Attack & { plan: Plan }) => (context: EditContext) => Refusal | void,
][] = [
  [
    "a segment's cell",
    ({ plan, n, text, pick }) =>
      (b) =>
        editSegmentCell(
          b,
          pickId(plan.segment, n),
          must(SEGMENT_COLUMNS[pick % SEGMENT_COLUMNS.length], "a column"),
          text,
        ),
  ],
  [
    "a segment's field of the margin",
    ({ plan, n, text, pick }) =>
      (b) =>
        editSegmentField(
          b,
          pickId(plan.segment, n),
          must(SEGMENT_FIELDS[pick % SEGMENT_FIELDS.length], "a field"),
          text,
        ),
  ],
  [
    "an option",
    ({ plan, n, text, pick, other }) =>
      (b) =>
        addOption(b, pickId(plan.segment, n), pick % 2 === 0 ? text : `${pick} ${other}`),
  ],
  [
    "a new room",
    ({ text, other }) =>
      (b) =>
        addRoom(b, { name: text, needs: other.slice(0, 2000) }),
  ],
  [
    "a room's field",
    ({ plan, n, text, pick }) =>
      (b) =>
        editRoom(b, pickId(plan.room, n), must(ROOM_FIELDS[pick % ROOM_FIELDS.length], "a field"), text),
  ],
  [
    "pasted rooms",
    ({ text, other }) =>
      (b) =>
        pasteRooms(b, [[text, other, text, other, text], [other, text], [text]]),
  ],
  [
    "gear's field",
    ({ plan, n, text, pick }) =>
      (b) =>
        editGear(b, pickId(plan.gear, n), must(GEAR_FIELDS[pick % GEAR_FIELDS.length], "a field"), text),
  ],
  [
    "new gear",
    ({ text }) =>
      (b) =>
        addGear(b, { name: text }),
  ],
  [
    "a new kind",
    ({ text, other }) =>
      (b) =>
        addHostKind(b, text, {}) ?? setAliases(b, must(b.edits.all("hostKind")[0], "a kind").id, other),
  ],
  [
    "a new line",
    ({ text }) =>
      (b) =>
        addLine(b, text),
  ],
  [
    "a line's field",
    ({ plan, n, text, pick }) =>
      (b) =>
        editLineText(b, pickId(plan.line, n), must(LINE_FIELDS[pick % LINE_FIELDS.length], "a field"), text),
  ],
  [
    "the VLANs on a device",
    ({ plan, n, text, pick }) =>
      (b) =>
        pick % 2 === 0
          ? setDeviceVlans(b, pickId(plan.device, n), text)
          : setVlanNameLimit(b, pickId(plan.device, n), text),
  ],
  [
    "a split",
    ({ plan, n, text }) =>
      (b) =>
        splitSegment(b, pickId(plan.segment, n), text),
  ],
  [
    "IPv6 for all",
    ({ text, pick }) =>
      (b) =>
        editSite(b, "blocks", pick % 3 === 0 ? "fd24:5a10:3c01::/48" : text) ?? numberAll6(b),
  ],
  [
    "a host's cell",
    ({ plan, n, text, pick }) =>
      (b) =>
        editHostCell(
          b,
          pickId(plan.host, n),
          must(HOST_COLUMNS[pick % HOST_COLUMNS.length], "a column"),
          text,
        ),
  ],
  [
    "a new segment",
    ({ text, other, pick }) =>
      (b) =>
        addSegment(b, {
          name: pick % 2 === 0 ? text : "New",
          vid: pick % 3 === 0 ? other : "",
          prefix: pick % 3 === 1 ? other : "",
          zone: pick % 3 === 2 ? other : "",
        }),
  ],
  [
    "a new host",
    ({ plan, n, text }) =>
      (b) =>
        addHost(b, { name: text.trim() === text ? text : "New", segment: pickId(plan.segment, n) }),
  ],
  [
    "a new device",
    ({ text, other, pick }) =>
      (b) =>
        addDevice(b, {
          model: pick % 9 === 0 ? text : must(DEVICE_MODELS[pick % DEVICE_MODELS.length], "a model").id,
          name: text,
          place: other,
        }),
  ],
  [
    "a device's field",
    ({ plan, n, text, pick }) =>
      (b) =>
        editDevice(
          b,
          pickId(plan.device, n),
          must(DEVICE_FIELDS[pick % DEVICE_FIELDS.length], "a field"),
          text,
        ),
  ],
  [
    "the site's field",
    ({ text, pick }) =>
      (b) =>
        editSite(b, must(SITE_FIELDS[pick % SITE_FIELDS.length], "a field"), text),
  ],
  [
    "a range to keep clear",
    ({ text, other, pick }) =>
      (b) =>
        addKeptClear(b, [text, `${text} ${other}`, `192.168.${pick}.0/24 ${other}`][pick % 3] ?? text),
  ],
  [
    "a cable's field",
    ({ plan, n, text, pick }) =>
      (b) =>
        editLink(b, pickId(plan.link, n), pick % 2 === 0 ? "length" : "label", text),
  ],
  [
    "a host's further field",
    ({ plan, n, text, pick }) =>
      (b) =>
        setHostFields(
          b,
          pickId(plan.host, n),
          must((["tag", "ipv6", "notes"] as const)[pick % 3], "a field"),
          text,
        ),
  ],
  [
    "a segment's further field",
    ({ plan, n, text, pick }) =>
      (b) =>
        setSegmentFields(b, pickId(plan.segment, n), pick % 2 === 0 ? { growth: text } : { prefix6: text }),
  ],
  [
    "a port's note",
    ({ plan, n, text }) =>
      (b) =>
        notePorts(b, [pickId(plan.port, n)], text),
  ],
  [
    "a leg's address",
    ({ plan, n, text }) =>
      (b) =>
        setLegAddress(b, pickId(plan.interface, n), text),
  ],
  [
    "a new leg",
    ({ plan, n, text }) =>
      (b) =>
        addLeg(b, pickId(plan.device, n), pickId(plan.segment, n), text),
  ],
  [
    "a wireless name",
    ({ plan, n, text }) =>
      (b) =>
        addSsid(b, pickId(plan.segment, n), text),
  ],
  [
    "a cable",
    ({ plan, n, pick }) =>
      (b) =>
        connectPorts(b, pickId(plan.port, n), pickId(plan.port, n * pick)),
  ],
  [
    "a pool by its edges",
    ({ plan, n, pick }) =>
      (b) =>
        movePool(b, pickId(plan.segment, n), n - 300, pick * 7),
  ],
  [
    "a stack",
    ({ text, other, pick }) =>
      (b) =>
        addStack(
          b,
          pick % 3 === 0
            ? text
            : `${pick} × ${pick % 3 === 1 ? "24-port PoE" : text} in ${other}, uplinks to core`,
        ),
  ],
  [
    "a model",
    ({ text, other, pick }) =>
      (b) =>
        putModel(b, null, {
          name: text,
          kind: "switch",
          bridging: "vlan",
          ports: pick % 2 === 0 ? other : `${pick} copper ${other}`,
          budgetW: pick % 4 === 0 ? other : "",
          oneLostW: pick % 4 === 1 ? other : "",
          heightUnits: pick % 4 === 2 ? other : "",
        }),
  ],
  [
    "a port's field",
    ({ plan, n, text, pick }) =>
      (b) =>
        editPort(
          b,
          pickId(plan.port, n),
          must((["label", "softwareName", "speedMbps", "poeMw"] as const)[pick % 4], "a field"),
          text,
        ),
  ],
  [
    "a MAC limit",
    ({ plan, n, text }) =>
      (b) =>
        setMacLimit(b, [pickId(plan.port, n), pickId(plan.port, n + 1)], text),
  ],
  [
    "a sign-in profile",
    ({ plan, n, text, pick }) =>
      (b) =>
        setProfile(b, [pickId(plan.port, n), pickId(plan.port, n + 1)], pick % 2 === 0 ? null : text),
  ],
  [
    "a host's own network",
    ({ plan, n, text, pick }) =>
      (b) =>
        setOwnNetwork(b, pickId(plan.host, n), OWN_FIELDS[pick % OWN_FIELDS.length] ?? "dns", text),
  ],
  [
    "a line's outside",
    ({ plan, n, text, pick }) =>
      (b) =>
        setOutside(b, pickId(plan.line, n), OUTSIDE_FIELDS[pick % OUTSIDE_FIELDS.length] ?? "dns", text),
  ],
  [
    "where a device asks from",
    ({ plan, n, pick }) =>
      (b) =>
        setAsksFrom(b, pickId(plan.device, n), pick % 2 === 0 ? null : pickId(plan.interface, pick)),
  ],
  [
    "a patch",
    ({ plan, n, text, pick }) =>
      (b) =>
        setPatch(b, pickId(plan.link, n), pick % 2 === 0 ? "panel" : "socket", text),
  ],
  [
    "labels by a pattern",
    ({ text, pick }) =>
      (b) =>
        editSite(b, "cablePattern", pick % 2 === 0 ? text : `{from} ${text}`) ?? labelCables(b),
  ],
  [
    "the pattern of gear",
    ({ text, pick }) =>
      (b) =>
        editSite(b, "devicePattern", pick % 2 === 0 ? text : `{place} ${text}`) ??
        addStack(b, "2 × access point in Loft"),
  ],
  [
    "a name in the software",
    ({ plan, n, text, other }) =>
      (b) =>
        setSoftwareNames(
          b,
          plan.port.get(pickId(plan.port, n))?.device ?? "",
          new Map(
            [
              [pickId(plan.port, n), text],
              [pickId(plan.port, n + 1), other],
            ].filter(
              ([id]) => plan.port.get(id ?? "")?.device === plan.port.get(pickId(plan.port, n))?.device,
            ) as [string, string][],
          ),
        ),
  ],
  [
    "a channel",
    ({ plan, n, text, pick }) =>
      (b) =>
        setChannel(b, pickId(plan.radio, n), pick % 3 === 0 ? String(pick) : text),
  ],
  [
    "the channels of a band",
    ({ text, other, pick }) =>
      (b) =>
        setChannels(
          b,
          must((["2.4", "5", "6"] as const)[pick % 3], "a band"),
          pick % 2 === 0 ? text : `1, 5 dfs, ${other}`,
        ),
  ],
  [
    "a wireless name's change",
    ({ plan, n, text, pick }) =>
      (b) =>
        editSsid(
          b,
          pickId(plan.ssid, n),
          pick % 2 === 0 ? { name: text } : { name: text, hidden: true, bands: pick % 4 === 1 ? [] : ["6"] },
        ),
  ],
  [
    "a name for each access point",
    ({ plan, n, text }) =>
      (b) =>
        editDevice(b, pickId(plan.device, n), "place", text) ??
        setNameSchool(b, "each") ??
        setNameSchool(b, "one"),
  ],
  [
    "a template",
    ({ text, other, pick }) =>
      (b) =>
        addTemplate(b, text, pick % 2 === 0 ? "txt" : other, other),
  ],
  [
    "a LAG",
    ({ plan, n, pick }) =>
      (b) =>
        makeLag(b, [pickId(plan.port, n), pickId(plan.port, n + pick)], "active"),
  ],
  [
    "a crossing",
    ({ plan, n, pick }) =>
      (b) =>
        setCrossing(
          b,
          pickId(plan.port, n),
          must(asVid(pick + 1), "a VID"),
          must((["none", "tagged", "untagged"] as const)[pick % 3], "a way"),
        ),
  ],
  [
    "a way back, a parked port, a WAN",
    ({ plan, n, pick }) =>
      (b) => {
        if (pick % 3 === 0) return makeWayBack(b, [pickId(plan.port, n)]);
        if (pick % 3 === 1) return parkInVlan(b, [pickId(plan.port, n)]);
        return makeWan(b, [pickId(plan.port, n)], [pickId(plan.line, n)]);
      },
  ],
  [
    "pasted segments",
    ({ plan, n, text, other, pick }) =>
      (b) =>
        pasteSegments(b, {
          rows: n % 4 === 3 ? [[text]] : [[text, other, text], [other]],
          from: must(SEGMENT_COLUMNS[pick % SEGMENT_COLUMNS.length], "a column"),
          onto: pick % 2 === 0 ? [pickId(plan.segment, n)] : [],
        }),
  ],
  [
    "pasted hosts",
    ({ plan, n, text, other, pick }) =>
      (b) =>
        pasteHosts(
          b,
          {
            rows:
              n % 4 === 3
                ? [[text]]
                : [
                    [text, other],
                    [other, text, other],
                  ],
            from: must(HOST_COLUMNS[pick % HOST_COLUMNS.length], "a column"),
            onto: pick % 2 === 0 ? [pickId(plan.host, n)] : [],
          },
          pickId(plan.segment, n),
        ),
  ],
];

test.each(FIELDS)("%s takes any text: refused with a sentence, or a plan that stands", (_, field) => {
  const outcomes = { refused: 0, written: 0 };
  fc.assert(
    fc.property(anyAttack, (attack) => {
      const plan = must(PLANS[attack.site], "a plan");
      outcomes[hold(plan, field({ ...attack, plan }))] += 1;
    }),
    { numRuns: 150, seed: 41 },
  );
  expect(outcomes.written).toBeGreaterThan(0);
});

test("a service's text is read or refused, and what is read means what was typed", () => {
  expect(parseService("backup tcp 8007")).toEqual({
    service: { name: "backup", protocol: "tcp", ports: [[8007, 8007]] },
  });
  expect(parseService("Media UDP 5000-5100, 6000")).toEqual({
    service: {
      name: "media",
      protocol: "udp",
      ports: [
        [5000, 5100],
        [6000, 6000],
      ],
    },
  });
  expect(parseService("ping6 icmp")).toEqual({ service: { name: "ping6", protocol: "icmp", ports: [] } });
  for (const [text, says] of [
    ["tcp", "is not a service"],
    ["x tcp 0", "ports run from 1 to 65535"],
    ["x tcp 9-3", "low to high"],
    ["x tcp 70000", "65535"],
    ["x icmp 3", "no ports"],
    ["", "is not a service"],
  ] as const) {
    expect(parseService(text)).toEqual({ refusal: expect.stringContaining(says) });
  }
  fc.assert(
    fc.property(near, (text) => {
      const read = parseService(text);
      return "service" in read || read.refusal.length > 10;
    }),
  );
});
