import { formatPrefix } from "../../address";
import { nameOf, type Device, type PlanIndex } from "../../plan";
import { foundState, withDeviceAs } from "../../runbook";
import { trunksInSight, type Sight } from "../sight";
import { beside, edited, type Suspect } from "../suspect";
import { linksInSight } from "./cables";
import { guardSuspects } from "./guards";

const vidsOf = (index: PlanIndex, device: string) => [
  ...new Set(index.portsOf(device).flatMap(({ untagged, tagged }) => [...untagged, ...tagged])),
];

/** How a device comes back that restarts: the site as it was when that was saved, and which that was. */
export interface Former {
  readonly state: () => PlanIndex | null;
  /** As the sentence ends: "as it was at its last save". */
  readonly words: string;
}
/** The same by the device; null where nobody knows of a save. */
export type Formerly = (device: string) => Former | null;

/** A device that lost its settings: as it comes out of the box, or as it was saved once. */
function notSaved(index: PlanIndex, device: Device, id: string, { state, words }: Former): Suspect {
  return {
    ...beside(
      {
        id: `${id} ${device.id}`,
        kind: "notSaved",
        words: `${device.name} was not saved: it restarted ${words}`,
        mend: `Set ${device.name} up again by its sheet, and save.`,
        subjects: [{ kind: "device", id: device.id }],
      },
      {
        site: (now) => {
          const found = state();
          return found === null ? null : withDeviceAs(now, device, found, index.plan);
        },
      },
    ),
    seenAt: [{ on: "device", device: device.id }],
  };
}

function protectionSuspects(index: PlanIndex, device: Device): Suspect[] {
  if (device.bridging !== "vlan") return [];
  const own = vidsOf(index, device.id);
  const told = {
    kind: "guard" as const,
    subjects: [
      { kind: "device" as const, id: device.id },
      ...index.portsOf(device.id).map(({ id }) => ({ kind: "port" as const, id })),
    ],
    seenAt: [{ on: "device" as const, device: device.id }],
  };
  return [
    edited(
      {
        ...told,
        id: `snooping ${device.id}`,
        words: `DHCP snooping on ${device.name} trusts no port`,
        mend: `Trust the port of ${device.name} that leads to the DHCP server, and save.`,
      },
      (edits, now) => {
        const { protections } = edits.need("device", device.id);
        edits.patch("device", device.id, { protections: { ...protections, snooping: own } });
        for (const port of now.portsOf(device.id))
          edits.patch("port", port.id, { guards: { ...port.guards, dhcpTrust: false } });
      },
    ),
    edited(
      {
        ...told,
        id: `inspection ${device.id}`,
        words: `ARP inspection on ${device.name} is on for VLANs that it knows no bindings of`,
        mend: `Switch ARP inspection on ${device.name} off where the plan has none, and save.`,
      },
      (edits) => {
        const { protections } = edits.need("device", device.id);
        edits.patch("device", device.id, { protections: { ...protections, arpInspection: own } });
      },
    ),
  ];
}

function treeSuspects({ id, name, tree }: Device): Suspect[] {
  if (tree.kind === "none") return [];
  return [
    edited(
      {
        id: `tree ${id}`,
        kind: "tree",
        words: `The spanning tree of ${name} is off`,
        mend: `Switch the spanning tree of ${name} on, and save.`,
        subjects: [{ kind: "device", id }],
        seenAt: [{ on: "device", device: id }],
      },
      (edits) => edits.patch("device", id, { tree: { ...edits.need("device", id).tree, kind: "none" } }),
    ),
  ];
}

function routeSuspects(index: PlanIndex, device: Device): Suspect[] {
  const told = {
    kind: "routing" as const,
    subjects: [{ kind: "device" as const, id: device.id }],
    seenAt: [{ on: "device" as const, device: device.id }],
  };
  const routes = device.routes.map((route, at) =>
    edited(
      {
        ...told,
        id: `route ${device.id} ${at}`,
        words: `${device.name} has no route to ${formatPrefix(route.prefix)}`,
        mend: `Enter the route to ${formatPrefix(route.prefix)} on ${device.name}, and save.`,
      },
      (edits) =>
        edits.patch("device", device.id, {
          routes: edits.need("device", device.id).routes.filter((_, place) => place !== at),
        }),
    ),
  );
  const legs = index
    .interfacesOf(device.id)
    .filter(({ line, translates }) => (line !== null ? translates !== "no" : translates === "yes"));
  return [
    ...routes,
    ...legs.map((leg) =>
      edited(
        {
          ...told,
          subjects: [...told.subjects, { kind: "interface", id: leg.id }],
          id: `nat ${leg.id}`,
          words: `${device.name} does not translate what leaves by ${nameOf(index, "interface", leg.id)}`,
          mend: `Switch address translation on ${device.name} on, and save.`,
        },
        (edits) => edits.patch("interface", leg.id, { translates: "no" }),
      ),
    ),
  ];
}

const LOOK_AT_THE_BOX =
  "Look at the provider's box: its light for the line, and the cable to ours. " +
  "Call the provider where the line is dark.";

/** Internet lines, each down by itself, and all together. */
function lineSuspects(index: PlanIndex): Suspect[] {
  const ends = [...index.plan.interface.values()].filter(({ line, port }) => line !== null && port !== null);
  const down = (id: string, words: string, own: typeof ends): Suspect =>
    edited(
      {
        id,
        kind: "line",
        words,
        mend: LOOK_AT_THE_BOX,
        subjects: own.flatMap(({ line, port }) => [
          ...(line === null ? [] : [{ kind: "line" as const, id: line }]),
          ...(port === null ? [] : [{ kind: "port" as const, id: port }]),
        ]),
        seenAt: own.flatMap(({ device }) => [{ on: "device" as const, device }]),
      },
      (edits) => {
        for (const { port } of own) if (port !== null) edits.patch("port", port, { enabled: false });
      },
    );
  const each = ends.map((end) =>
    down(`line ${end.id}`, `${nameOf(index, "line", end.line ?? "")} is down`, [end]),
  );
  return ends.length > 1 ? [...each, down("lines", "All internet lines are down", ends)] : each;
}

/** What a restart does to a device that was not saved. */
function restartSuspects(index: PlanIndex, device: Device, box: Former, formerly: Formerly): Suspect[] {
  const saved = formerly(device.id);
  return [
    notSaved(index, device, "not saved", box),
    ...(saved === null ? [] : [notSaved(index, device, "saved before", saved)]),
  ];
}

/** What can be wrong on gear beside its VLANs, addresses and walls. */
export function gearSuspects(index: PlanIndex, sight: Sight, formerly: Formerly): Suspect[] {
  const trunks = new Set(trunksInSight(index, sight));
  let found: PlanIndex | null | undefined;
  const box: Former = {
    state: () => (found === undefined ? (found = foundState(index, null)) : found),
    words: "as it came out of the box",
  };
  const devices = [...sight.devices].flatMap((id) => index.plan.device.get(id) ?? []);
  const ways = linksInSight(index, sight);
  const guarded = [...new Set([...trunks, ...sight.ports])]
    .filter((id) => index.linkAt(id) === undefined || ways.has(index.linkAt(id)?.id ?? ""))
    .flatMap((id) => index.plan.port.get(id) ?? []);
  return [
    ...devices.flatMap((device) => [
      ...restartSuspects(index, device, box, formerly),
      ...protectionSuspects(index, device),
      ...treeSuspects(device),
      ...routeSuspects(index, device),
    ]),
    ...guarded.flatMap((port) => guardSuspects(index, port, trunks.has(port.id))),
    ...lineSuspects(index),
  ];
}
