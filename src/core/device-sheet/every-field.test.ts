import { bramblewick } from "../../../demo/bramblewick";
import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { asPrefix6, parseAddress, parseIpv6, parsePrefix } from "../address";
import { must } from "../kernel";
import {
  USUAL_METRIC,
  applyChanges,
  BLANK_FORWARD,
  BLANK_LINE,
  PlanEdits,
  PlanIndex,
  vid,
  type Device,
  type Host,
  type Kind,
  type Line,
  type Plan,
  type Segment,
} from "../plan";
import { makeTunnel } from "../planners";
import { SERVICES } from "../policy";
import { afterEdit, donePlan } from "../testing/after-edit";
import { testId } from "../testing/build-plan";
import { dice } from "../testing/plants";
import { editField, FIELD_PATHS, type FieldPath } from "../testing/schema-edits";
import { deviceData } from "./device-data";
import { deviceSteps } from "./steps";

// Whatever is planned on a device comes out on its sheet: every field of what concerns a device is changed, and
// some sheet has to say something else.

const OF_A_DEVICE: ReadonlySet<Kind> = new Set<Kind>([
  ...(["device", "port", "interface", "line", "forward", "scope", "ssid", "radio", "lag", "signIn"] as const),
  ...(["deviceVlan", "vlan", "segment", "leaflet"] as const),
]);

/** Fields that stand on no device's sheet, each with its reason. */
const EXCEPTIONS: Readonly<Record<string, string>> = {
  "scope.serverHost": "a server that is an end device has no sheet of its own",
  "deviceVlan.device": "is what somebody found on the device, not what is to be entered",
  "deviceVlan.vid": "as above",
  "deviceVlan.name": "as above",
};

/** A demo site with a tunnel and one of each list that the demo leaves empty. */
function filled(plan: Plan): Plan {
  return donePlan(
    afterEdit(plan, (context) => {
      const { edits, ids } = context;
      const [gateway] = edits.all("device").filter(({ kind }) => kind === "gateway");
      const [bridge] = edits
        .all("device")
        .filter(({ kind, bridging }) => kind === "switch" && bridging === "vlan");
      const [host, other] = edits.all("host").filter(({ ipv4 }) => ipv4 !== null);
      const [line] = edits.all("line");
      const [segment] = edits.all("segment").filter(({ management }) => management);
      if ([gateway, bridge, host, other, line, segment].includes(undefined))
        return "the demo lacks something";
      fillLists(edits, {
        gateway: must(gateway, "a gateway"),
        bridge: must(bridge, "a switch"),
        host: must(host, "a host"),
        line: must(line, "a line"),
        segment: must(segment, "a segment"),
      });
      const spare = edits.put("line", { ...BLANK_LINE, id: ids(), name: "Spare line", place: 1 });
      for (const [to, by] of [
        [host, line],
        [other, spare],
      ] as const)
        edits.put("forward", {
          ...BLANK_FORWARD,
          id: ids(),
          name: `To ${to?.name}`,
          line: by?.id ?? "",
          host: to?.id ?? "",
          ports: [8000, 8000],
        });
      makeTunnel(context, { name: "On call", device: gateway?.id ?? "" });
      return null;
    }),
  );
}

interface Parts {
  readonly gateway: Device;
  readonly bridge: Device;
  readonly host: Host;
  readonly line: Line;
  readonly segment: Segment;
}

function fillLists(edits: PlanEdits, { gateway, bridge, host, line, segment }: Parts): void {
  const twenty = must(vid(20), "20");
  const next = must(parseAddress("10.24.20.7"), "an address");
  edits.patch("line", line.id, {
    pins: [{ what: "host", host: host.id, orElse: "next" }],
    marks: { kept: true, voicePriority: 5 },
    delegated: { length: 56, prefix: asPrefix6(parsePrefix("2001:db8:24::/56")), keeps: false },
  });
  edits.patch("device", gateway.id, {
    routes: [{ prefix: must(parsePrefix("10.61.0.0/20"), ""), via: next, metric: USUAL_METRIC }],
    repeatsDiscovery: [segment.id],
  });
  edits.patch("device", bridge.id, {
    tree: {
      ...bridge.tree,
      kind: "multiple",
      instances: [{ number: 1, vids: [twenty], priority: 4096 }],
      perVlan: [{ vid: twenty, priority: 8192 }],
    },
    protections: { ...bridge.protections, snooping: [twenty], bound: [host.id] },
    baseline: { ...bridge.baseline, logTo: [next], idleMinutes: 7 },
    abilities: { ...bridge.abilities, lacks: ["time", "log"] },
  });
  edits.patch("segment", segment.id, {
    time: [next],
    prefixes6: [must(asPrefix6(parsePrefix("fd00:24::/64")), "a prefix")],
  });
  const points = edits.all("device").flatMap(({ id, kind }) => (kind === "accessPoint" ? [id] : []));
  for (const ssid of edits.all("ssid"))
    edits.patch("ssid", ssid.id, {
      moreSegments: [segment.id],
      at: points,
      security: "enterprise",
      profile: edits.all("signIn")[0]?.id ?? null,
    });
  for (const scope of edits.all("scope"))
    edits.patch("scope", scope.id, {
      exclusions: scope.pools.slice(0, 1).map(({ first }) => ({ first, last: first })),
      options: [{ code: 66, name: "server", value: "x" }],
    });
  const ports = edits.all("port").filter((port) => port.device === bridge.id);
  for (const profile of edits.all("signIn")) {
    edits.patch("signIn", profile.id, { before: [...SERVICES.slice(0, 2)] });
    const other = testId("signIn", "of another kind");
    const timers = { ...profile.timers, waitSeconds: 7 };
    edits.put("signIn", { ...profile, id: other, name: "Lobby", timers });
  }
  const lag = testId("lag", "of two");
  edits.put("lag", { id: lag, device: bridge.id, name: "Two", mode: "active" });
  edits.put("lag", { id: testId("lag", "of none"), device: gateway.id, name: "None", mode: "active" });
  for (const port of ports.slice(-8)) edits.patch("port", port.id, { lag });
  for (const leg of edits.all("interface").slice(0, 3))
    edits.patch("interface", leg.id, { addresses6: [must(parseIpv6("fd00:24::9"), "an address")] });
}

const PLANS = [lockkeepersHouse(), fennelStreet(), bramblewick(), filled(fennelStreet())];
const sheets = (index: PlanIndex): string =>
  JSON.stringify([...index.plan.device.values()].map((device) => deviceSteps(deviceData(index, device))));
const BEFORE = PLANS.map((plan) => {
  const index = PlanIndex.of(plan);
  return { plan, index, said: sheets(index) };
});

const TRIES = 150;

/** Whether some value of the field changes some sheet. */
function comesOut(field: FieldPath): boolean {
  const roll = dice(field.path.join(".").length + 7);
  for (let i = 0; i < TRIES; i += 1)
    for (const { plan, index, said } of BEFORE) {
      const edits = new PlanEdits(plan);
      editField(edits, field, roll);
      const changes = edits.changes();
      const applied = changes.length === 0 ? null : applyChanges(plan, changes);
      if (applied?.ok === true && sheets(index.derive(applied.value, changes)) !== said) return true;
    }
  return false;
}

const nameOf = ({ kind, path }: FieldPath): string => `${kind}.${path.join(".")}`;
const ASKED = FIELD_PATHS.filter(({ kind }) => OF_A_DEVICE.has(kind));

test.each(
  ASKED.filter((field) => EXCEPTIONS[nameOf(field)] === undefined).map(
    (field) => [nameOf(field), field] as const,
  ),
)("%s comes out on a device's sheet", (_, field) => {
  expect(comesOut(field)).toBe(true);
});

test("the class of a segment without a VLAN comes out, too", () => {
  for (const { plan, index, said } of BEFORE)
    for (const segment of plan.segment.values())
      if (segment.vlan === null && index.gatewayOf(segment) !== undefined) {
        const edits = new PlanEdits(plan);
        edits.patch("segment", segment.id, { trafficClass: "video" });
        const changes = edits.changes();
        const applied = applyChanges(plan, changes);
        expect(sheets(index.derive(must(applied.ok ? applied.value : null, "it fits"), changes))).not.toBe(
          said,
        );
      }
  expect.hasAssertions();
});

test("nothing is excused that comes out, or that there is no more", () => {
  const fields = new Map(ASKED.map((field) => [nameOf(field), field]));
  expect(
    Object.keys(EXCEPTIONS).filter((name) => {
      const field = fields.get(name);
      return field === undefined || comesOut(field);
    }),
  ).toEqual([]);
});
