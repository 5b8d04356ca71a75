import { formatAddress, parseMac } from "../address";
import { grouped } from "../kernel";
import { nameOf, PortNames, type Device, type PlanIndex, type Port } from "../plan";
import { managementAddress } from "../probe";
import { counted } from "../repairs";
import { bridgeAddress } from "../spanning-tree";
import { lineOf, noteOf, portName, vidOfTag, type LaidLine, type Listening } from "./line";
import { ABOUT, gearByMac, NOT_THERE, plannedAbout, rootText, type WireLine } from "./wire";

type Facts = Listening["heard"]["facts"];
type TreeSaid = NonNullable<Facts["stp"]>["messages"][number];
type Neighbour = NonNullable<Facts["lldp"]>[number];

/** A root that was heard, by its name where the plan knows its address. */
function heardRoot({ index, planned }: Listening, root: NonNullable<TreeSaid["root"]>): string {
  const mac = parseMac(root.mac);
  const name = mac === null ? undefined : gearByMac(index).get(mac);
  // Where the plan does not know its own root's address, any address may be that one's.
  const isNamed = plannedAbout(planned, ABOUT.root).includes(",");
  return rootText(root.priority + root.ext, name ?? (isNamed ? root.mac : null));
}

/** Which root is named: of several the one that was heard of last. */
function rootLines(listening: Listening): LaidLine[] {
  const { facts, lastRoot } = listening.heard;
  if (lastRoot === null) return [];
  const untagged = (facts.stp?.messages ?? []).flatMap(({ vid, root }) =>
    vidOfTag(vid) === null ? (root ?? []) : [],
  );
  const last = heardRoot(listening, lastRoot);
  const roots = new Set(untagged.map((root) => heardRoot(listening, root)));
  const planned = plannedAbout(listening.planned, ABOUT.root);
  const before = [...roots].filter((root) => root !== last);
  const line = lineOf(
    { about: ABOUT.root, planned, heard: last },
    {
      isRight: last === planned,
      says:
        planned === NOT_THERE
          ? "Somebody speaks spanning tree here, where no tree is planned."
          : `The root of the tree is ${last}; it has to be ${planned}.`,
      line: [ABOUT.root, last],
    },
  );
  return [
    line,
    ...(before.length === 0
      ? []
      : [noteOf("Tree roots before", before.join("; "), "The root changed while this was heard.")]),
  ];
}

function changeLines({ heard }: Listening): LaidLine[] {
  const change = heard.facts.stp?.topologyChange;
  const frames = (change?.tcnFrames ?? 0) + (change?.framesWithTcFlag ?? 0);
  return frames === 0
    ? []
    : [
        noteOf(
          "Topology changes",
          counted(frames, "message", "messages"),
          "A port of the tree came up or went down.",
        ),
      ];
}

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** The gear that says so, by its address or its name; null for none of the plan. */
export function gearNamed(
  index: PlanIndex,
  {
    chassisId,
    systemName,
    managementAddresses = [],
  }: Pick<Neighbour, "chassisId" | "systemName" | "managementAddresses">,
): Device | null {
  const devices = [...index.plan.device.values()];
  const mac = parseMac(chassisId);
  const found =
    devices.find((device) => mac !== null && bridgeAddress(index, device) === mac) ??
    devices.find(({ name }) => systemName !== undefined && same(name, systemName)) ??
    devices.find((device) => {
      const own = managementAddress(index, device, 4);
      return own !== undefined && managementAddresses.includes(formatAddress(own));
    });
  return found ?? null;
}

/** A MAC address names a port that nobody can tell by its number. */
const MAC_SUBTYPE = 3;

/** The port of a device that a neighbour names; null where none is surely meant. */
function portNamed(index: PlanIndex, device: Device, { portId, portIdSubtype }: Neighbour): Port | null {
  return portIdSubtype === MAC_SUBTYPE ? null : new PortNames(index, device).find(portId);
}

/** The gear that is to speak at a port: its own, and, on the cable, that at the other end. */
function speakers({ index, port, tap }: Listening): string[] {
  const ends = [port, ...(tap.position === "inline" ? [index.peerOf(port)?.id ?? ""] : [])];
  return ends.flatMap((id) => index.plan.port.get(id)?.device ?? []);
}

/** What the right neighbour says of this port beside what is set. */
function saidLines(listening: Listening, { pvid, medPolicies = [], vlanNames = [] }: Neighbour): LaidLine[] {
  const voice = medPolicies.find(({ application }) => application === 1);
  const said: WireLine[] = [
    ...(pvid === undefined ? [] : [[ABOUT.pvid, String(pvid === 0 ? NOT_THERE : pvid)] as const]),
    ...(voice === undefined ? [] : [[ABOUT.voice, String(voice.vid)] as const]),
  ];
  const { planned } = listening;
  const strangers = vlanNames.filter(
    ({ vid }) =>
      plannedAbout(planned, ABOUT.vlan(vid)) === NOT_THERE &&
      plannedAbout(planned, ABOUT.pvid) !== String(vid),
  );
  return [
    ...said.map((line) => {
      const [about, value] = line;
      const own = plannedAbout(planned, about);
      return lineOf(
        { about, planned: own, heard: value },
        { isRight: own === value, says: `${portName(listening)} names ${value}; it has to be ${own}.`, line },
      );
    }),
    ...strangers.map(({ vid, name }) =>
      lineOf(
        { about: `VLAN ${vid} named`, planned: NOT_THERE, heard: name },
        { isRight: false, says: `${portName(listening)} names VLAN ${vid}, which is not planned there.` },
      ),
    ),
  ];
}

/** A neighbour that is no gear of the plan: one of its end devices, or a stranger. */
function otherNeighbour({ index }: Listening, about: string, said: Neighbour): LaidLine {
  const mac = parseMac(said.chassisId);
  const host = [...index.plan.host.values()].find((host) => host.mac !== null && host.mac === mac);
  return noteOf(
    about,
    saidPort(said),
    host === undefined ? "The plan does not have it." : `That is ${host.name}.`,
  );
}

/** How a neighbour names its port. */
const saidPort = ({ portId, portDescription = "" }: Neighbour): string =>
  [portId, portDescription].filter((text) => text !== "").join(", ");

function neighbourLines(listening: Listening, said: Neighbour): LaidLine[] {
  const { index, port, tap } = listening;
  const device = index.plan.port.get(port)?.device;
  const about = `Neighbour ${said.systemName ?? said.chassisId}`;
  if (said.shutdown === true) return [noteOf(about, saidPort(said), "It says that it goes away.")];
  const gear = gearNamed(index, said);
  if (gear === null) return [otherNeighbour(listening, about, said)];
  const named = portNamed(index, gear, said);
  const heard = named === null ? `${gear.name}, ${saidPort(said)}` : nameOf(index, "port", named.id);
  if (tap.position === "mirror") return [noteOf(about, heard)];
  const beside = { about, planned: portName(listening), heard };
  if (!speakers(listening).includes(gear.id)) {
    const own = nameOf(index, "device", device ?? "");
    return [lineOf(beside, { isRight: false, says: `${gear.name} speaks here, not ${own}.` })];
  }
  if (gear.id !== device) return [noteOf(about, heard)];
  if (named !== null && named.id !== port)
    return [lineOf(beside, { isRight: false, says: `The cable comes from ${heard}.` })];
  return [lineOf(beside, { isRight: true, says: "" }), ...saidLines(listening, said)];
}

/** More neighbours than there are ends on one cable. */
const MOST_NEIGHBOURS = 2;

/** What gear says of itself: roots of trees, neighbours. */
export function gearLines(listening: Listening): LaidLine[] {
  const { lldp = [] } = listening.heard.facts;
  const byPort = grouped(lldp, ({ chassisId, portId }) => `${chassisId} ${portId}`);
  // Who starts up says more from message to message: the last is whole.
  const last = [...byPort.values()].flatMap((said) => said.at(-1) ?? []);
  const isMany = last.length > MOST_NEIGHBOURS && listening.tap.position !== "mirror";
  return [
    ...rootLines(listening),
    ...changeLines(listening),
    ...last.flatMap((said) => neighbourLines(listening, said)),
    ...(isMany
      ? [
          noteOf(
            "Neighbours at one port",
            String(last.length),
            "Unmanaged gear is in between, which passes their messages on.",
          ),
        ]
      : []),
  ];
}
