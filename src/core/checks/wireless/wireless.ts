import { nameOf, ssidsOf, vidsOfSsid, type Ssid } from "../../plan";
import { paintPorts, accessPointRole } from "../../planners";
import { modeOf } from "../../fabric";
import { SECURITY_FACTS } from "../../wireless";
import { localCheck, type Found } from "../check";
import { type Repair, listed } from "../../repairs";
import { devicesTouched } from "../touched";

const anyEdit = () => "all" as const;

interface AccessPort {
  readonly point: string;
  readonly port: string;
  readonly own: string;
  readonly vids: readonly number[];
}

export const accessPortToPoint = localCheck<AccessPort, "device">({
  code: "access-port-to-access-point",
  severity: "stop",
  family: "wireless",
  title: "An access point with several networks is plugged into an access port",
  why:
    "An access port lets one VLAN through: every wireless name lands " +
    "in it or, more often, nobody on the others gets an address.",
  reads: ["device", "port", "link", "ssid", "segment", "vlan"],
  of: "device",
  touched: (index, change) =>
    change.kind === "ssid" || change.kind === "segment" || change.kind === "vlan"
      ? "all"
      : devicesTouched(index, change),
  candidates: (index) => [...index.plan.device.values()].filter((device) => device.kind === "accessPoint"),
  findAt: (index, point): Found<AccessPort>[] => {
    if (point.kind !== "accessPoint" || point.bridging !== "vlan") return [];
    const wanted = [...new Set(ssidsOf(index, point).flatMap((ssid) => vidsOfSsid(index, ssid)))];
    return (index.groups("portsByDevice").get(point.id) ?? []).flatMap((own): Found<AccessPort>[] => {
      const far = index.peerOf(own.id);
      if (
        far === undefined ||
        modeOf(far) !== "access" ||
        index.plan.device.get(far.device)?.bridging !== "vlan"
      )
        return [];
      const vids = wanted.filter((vid) => vid !== far.pvid).sort((a, b) => a - b);
      return vids.length === 0
        ? []
        : [
            {
              subjects: [
                { kind: "port", id: far.id },
                { kind: "device", id: point.id },
              ],
              data: { point: point.id, port: far.id, own: own.id, vids },
            },
          ];
    });
  },
  describe: ({ point, port, vids }, index) =>
    `${nameOf(index, "device", point)} is plugged into ${nameOf(index, "port", port)}, ` +
    `an access port in VLAN ${index.plan.port.get(port)?.pvid ?? 0}; its wireless ` +
    `names need VLAN ${listed(vids.map(String))} too.`,
  repairs: ({ point, port, own }, index) => {
    const device = index.plan.device.get(point);
    if (device === undefined) return [];
    const role = accessPointRole(index, device.domain, device);
    return [
      {
        label: "Make both ends a trunk with what it needs",
        planner: "paint-ports",
        args: { ports: [port, own], role: "accessPoint" },
        edit: (edits) => paintPorts(edits, [port, own], { role: "trunk", ...role }),
      },
    ];
  },
});

interface OfSsid {
  readonly ssid: string;
}
const ofSsid = (ssid: Ssid): Found<OfSsid>[] => [
  { subjects: [{ kind: "ssid", id: ssid.id }], data: { ssid: ssid.id } },
];

export const guestsNotIsolated = localCheck<OfSsid, "ssid">({
  code: "guests-not-isolated",
  severity: "warn",
  family: "wireless",
  title: "Visitors on a wireless name can reach one another",
  why: "Strangers share that network. With isolation each of them reaches the internet and nobody else.",
  reads: ["ssid", "segment"],
  of: "ssid",
  touched: anyEdit,
  findAt: (index, ssid): Found<OfSsid>[] =>
    !ssid.isolation && index.plan.segment.get(ssid.segment)?.purpose === "guests" ? ofSsid(ssid) : [],
  describe: ({ ssid }, index) =>
    `${nameOf(index, "ssid", ssid)} leads visitors into ` +
    `${index.plan.segment.get(index.plan.ssid.get(ssid)?.segment ?? "")?.name ?? "a segment"} ` +
    "without keeping them apart.",
  repairs: ({ ssid }) => [
    {
      label: "Keep its stations apart",
      planner: "edit-ssid",
      args: { ssid, isolation: true },
      edit: (edits) => edits.patch("ssid", ssid, { isolation: true }),
    },
  ],
});

export const weakSecurity = localCheck<OfSsid, "ssid">({
  code: "weak-wireless-security",
  severity: "warn",
  family: "wireless",
  title: "A wireless name is secured weakly",
  why: "What goes through the air can be heard from the street.",
  reads: ["ssid"],
  of: "ssid",
  touched: () => [],
  findAt: (_index, ssid): Found<OfSsid>[] =>
    SECURITY_FACTS[ssid.security].weak === null ? [] : ofSsid(ssid),
  describe: ({ ssid }, index) => {
    const facts = SECURITY_FACTS[index.plan.ssid.get(ssid)?.security ?? "open"];
    return (
      `${nameOf(index, "ssid", ssid)} is ` +
      `${facts.secret ? `secured by ${facts.words}` : facts.words}: ${facts.weak ?? ""}.`
    );
  },
  repairs: ({ ssid }, index) => {
    const security = index.plan.ssid.get(ssid)?.security === "open" ? "owe" : "pskSae";
    return [
      {
        label: `Make it ${SECURITY_FACTS[security].words}`,
        planner: "edit-ssid",
        args: { ssid, security },
        edit: (edits) => edits.patch("ssid", ssid, { security }),
      },
    ];
  },
});

export const securityNotFor6 = localCheck<OfSsid, "ssid">({
  code: "security-not-for-6-ghz",
  severity: "stop",
  family: "wireless",
  title: "A wireless name is offered in 6 GHz with a security that the band does not admit",
  why:
    "In 6 GHz only OWE, SAE and sign-in by name with protected management frames " +
    "are admitted (IEEE 802.11 section 12.12): the name does not appear there.",
  reads: ["ssid"],
  of: "ssid",
  touched: () => [],
  findAt: (_index, ssid): Found<OfSsid>[] =>
    ssid.bands.includes("6") && !SECURITY_FACTS[ssid.security].in6 ? ofSsid(ssid) : [],
  describe: ({ ssid }, index) =>
    `${nameOf(index, "ssid", ssid)} is offered in 6 GHz with ` +
    `${SECURITY_FACTS[index.plan.ssid.get(ssid)?.security ?? "open"].words}, ` +
    "which is not admitted there.",
  repairs: ({ ssid }, index) => {
    const entity = index.plan.ssid.get(ssid);
    const security = entity?.security === "open" ? "owe" : "sae";
    const rest = entity?.bands.filter((band) => band !== "6") ?? [];
    return [
      ...(rest.length === 0
        ? []
        : [
            {
              label: "Leave 6 GHz out",
              planner: "edit-ssid",
              args: { ssid, bands: rest },
              edit: (edits: Parameters<Repair["edit"]>[0]) => edits.patch("ssid", ssid, { bands: rest }),
            },
          ]),
      {
        label: `Make it ${SECURITY_FACTS[security].words}`,
        planner: "edit-ssid",
        args: { ssid, security },
        edit: (edits) => edits.patch("ssid", ssid, { security }),
      },
    ];
  },
});
