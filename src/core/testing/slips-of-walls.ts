import { parseIpv6, parsePrefix } from "../address";
import { must } from "../kernel";
import { BLANK_EXCEPTION, type CollectionKind, type EntityOf, type Line, type PlanEdits } from "../plan";
import { testId } from "./build-plan";
import { net6 } from "./written";

/** What is planted in the home, and what the finding says: by the check's code. */
export type Slip = readonly [code: string, slip: (edits: PlanEdits) => void, says: RegExp];

const find = <K extends CollectionKind>(edits: PlanEdits, kind: K, name: string): EntityOf<K> =>
  must(
    edits.all(kind).find((entity) => "name" in entity && entity.name === name),
    name,
  );
const segmentCalled = (d: PlanEdits, name: string) => find(d, "segment", name);
const gateway = (d: PlanEdits) => find(d, "device", "Gateway");

/** A service of the site's own. */
function own(d: PlanEdits, name: string, fields: Partial<EntityOf<"service">>): string {
  const id = testId("service", name + (fields.note ?? ""));
  d.put("service", { name, parts: [], includes: [], note: "", ...fields, id });
  return id;
}
const KILN = { protocol: "tcp" as const, ports: [[8080, 8080]] as [number, number][] };

/** The fibre line with a prefix that the provider delegates. */
const delegates = (d: PlanEdits, fields: Partial<Line["delegated"]>): void => {
  const line = find(d, "line", "Fibre line");
  d.patch("line", line.id, { delegated: { ...line.delegated, length: 56, ...fields } });
};

function conduit(d: PlanEdits, fields: Partial<EntityOf<"conduit">>): string {
  const id = testId("conduit", "slip");
  d.put("conduit", { id, name: "House to studio", securityLevel: 0, owner: "", note: "", ...fields });
  return id;
}

/** A door from one zone to another. */
function door(d: PlanEdits, from: string, to: string, into: string | null = null): string {
  const id = testId("wall", `${from} ${to}`);
  const known = d
    .all("wall")
    .find(
      (wall) =>
        wall.from.at === "zone" &&
        wall.to.at === "zone" &&
        wall.from.zone === segmentCalled(d, from).zone &&
        wall.to.zone === segmentCalled(d, to).zone,
    );
  if (known !== undefined) d.remove("wall", known.id);
  d.put("wall", {
    id,
    from: { at: "zone", zone: segmentCalled(d, from).zone },
    to: { at: "zone", zone: segmentCalled(d, to).zone },
    door: "services",
    services: [{ name: "ssh", protocol: "tcp", ports: [[22, 22]] }],
    reason: "",
    conduit: into,
  });
  return id;
}

const level = (d: PlanEdits, segment: string, fields: Partial<EntityOf<"zone">>): void => {
  d.patch("zone", segmentCalled(d, segment).zone, fields);
};

/** Slips with services, conduits, delegated prefixes and discovery; each for the home. */
export const SLIPS_OF_WALLS: readonly Slip[] = [
  [
    "service-unclear",
    (d) => own(d, "kiln", { parts: [KILN], includes: ["glaze"] }),
    /kiln takes in glaze, and there is no such service/,
  ],
  [
    "service-differs",
    (d) => {
      own(d, "kiln", { parts: [KILN] });
      const wall = door(d, "Lodger", "Studio");
      d.patch("wall", wall, { services: [{ name: "kiln", protocol: "tcp", ports: [[8081, 8081]] }] });
    },
    /kiln passes as tcp 8081; the service is tcp 8080/,
  ],
  [
    "service-differs",
    (d) => {
      own(d, "kiln", { parts: [KILN, { protocol: "udp", ports: [[8080, 8080]] }] });
      const service = { ...KILN, name: "kiln" };
      const host = must(d.all("host")[0], "a host").id;
      const id = testId("wish", "kiln");
      d.put("wish", { id, name: "Kiln from outside", host, service, from: [], way: "open", note: "" });
    },
    /Kiln from outside asks for kiln as tcp 8080; the service is tcp 8080, udp 8080/,
  ],
  [
    "service-differs",
    (d) => {
      own(d, "kiln", { parts: [KILN] });
      const service = { name: "kiln", protocol: "udp" as const, ports: KILN.ports };
      const line = find(d, "line", "Fibre line");
      d.patch("line", line.id, { pins: [...line.pins, { what: "service", service, orElse: "next" }] });
    },
    /Fibre line carries kiln as udp 8080; the service is tcp 8080/,
  ],
  [
    "outside-delegated",
    (d) => {
      delegates(d, { prefix: net6("2001:db8:99::/56") });
      d.patch("segment", segmentCalled(d, "Household").id, { prefixes6: [net6("2001:db8:24:20::/64")] });
      const leg = must(segmentCalled(d, "Household").gatewayInterface, "a leg");
      d.patch("interface", leg, { addresses6: [must(parseIpv6("2001:db8:24:20::1"), "an address")] });
    },
    /Household has 2001:db8:24:20::\/64, and Fibre line delegates 2001:db8:99::\/56/,
  ],
  [
    "delegated-too-small",
    (d) => {
      delegates(d, { length: 64 });
      for (const name of ["Household", "Studio"])
        d.patch("segment", segmentCalled(d, name).id, { advertise: "slaac" });
    },
    /delegates a \/64: 1 subnet of \/64, and 2 segments advertise IPv6/,
  ],
  [
    "hangs-on-prefix",
    (d) => {
      delegates(d, { prefix: net6("2001:db8:24::/56") });
      d.put("exception", {
        ...BLANK_EXCEPTION,
        id: testId("exception", "six"),
        name: "Kiln by IPv6",
        from: { at: "internet" },
        to: { at: "prefix", prefix: net6("2001:db8:24:20::7/128") },
      });
    },
    /Fibre line may change 2001:db8:24::\/56, and the exception Kiln by IPv6 lies in it/,
  ],
  [
    "discovery-without-leg",
    (d) => {
      const [one, two] = [segmentCalled(d, "Household").id, segmentCalled(d, "Studio").id];
      d.patch("device", find(d, "device", "Hall switch").id, { repeatsDiscovery: [one, two] });
    },
    /Hall switch shall tell what there is in .*where it has no leg/,
  ],
  [
    "discovery-without-leg",
    (d) => d.patch("device", gateway(d).id, { repeatsDiscovery: [segmentCalled(d, "Household").id] }),
    /Gateway tells what there is in Household to nobody else/,
  ],
  [
    "discovery-to-strangers",
    (d) => {
      const all = ["Household", "Studio", "Visitors"].map((name) => segmentCalled(d, name).id);
      d.patch("device", gateway(d).id, { repeatsDiscovery: all });
    },
    /Gateway tells Visitors what there is in other segments/,
  ],
  [
    "found-by-address-only",
    (d) => {
      const host = must(
        d.all("host").find((host) => host.segment === segmentCalled(d, "Studio").id),
        "a host",
      );
      d.patch("host", host.id, { kind: "printer" });
      const wall = door(d, "Lodger", "Studio");
      d.patch("wall", wall, {
        services: [
          {
            name: "print",
            protocol: "tcp",
            ports: [
              [631, 631],
              [9100, 9100],
            ],
          },
        ],
      });
    },
    /Lodger may use .* in Studio and has to be told the address/,
  ],
  [
    "box-network-seen",
    (d) =>
      d.patch("line", find(d, "line", "Fibre line").id, {
        providerBox: "routes",
        boxPrefix: must(parsePrefix("192.168.177.0/24"), "a prefix"),
      }),
    /Visitors.* get to the pages of the box of Fibre line and to what hangs on it, 192\.168\.177\.0\/24/,
  ],
  [
    "level-skipped",
    (d) => {
      level(d, "Lodger", { level: "business" });
      level(d, "Studio", { level: "control" });
      door(d, "Lodger", "Studio");
    },
    /Lodger \(level 4, business\) gets to Studio \(level 1, control\) over the levels in between/,
  ],
  [
    "conduit-too-weak",
    (d) => {
      level(d, "Studio", { securityLevel: 3 });
      door(d, "Lodger", "Studio", conduit(d, { securityLevel: 1 }));
    },
    /House to studio has target level 1 and leads to Studio with level 3/,
  ],
  ["conduit-empty", (d) => conduit(d, {}), /No door and no exception belongs to House to studio/],
  [
    "door-without-conduit",
    (d) => {
      level(d, "Lodger", { level: "operations" });
      level(d, "Studio", { level: "control" });
      level(d, "Gadgets", { level: "control" });
      door(d, "Lodger", "Studio", conduit(d, {}));
      door(d, "Lodger", "Gadgets");
    },
    /1 door between (Lodger and Gadgets|Gadgets and Lodger) belongs to no conduit/,
  ],
];
