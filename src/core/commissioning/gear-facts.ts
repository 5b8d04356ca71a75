import { linkSpeed, speedText } from "../cabling";
import { nameOf, type Device, type Link, type PlanIndex, type Port } from "../plan";
import { loadAt, watts } from "../power";
import { bridgeAddress, TREE } from "../spanning-tree";
import type { Fact, Line } from "./fact";

// What gear shows of itself beside its settings: the tree, the speed of its cables, the power that it gives.

const treeFact = (device: string): string => `tree ${device}`;
const speedFact = (link: string): string => `speed ${link}`;
const powerFact = (port: string): string => `power ${port}`;

const inTree = (index: PlanIndex): Device[] => {
  const { rootOf } = index.derived(TREE);
  return [...index.plan.device.values()].filter(
    ({ id, bridging, tree }) => bridging === "vlan" && tree.kind !== "none" && rootOf.has(id),
  );
};

/** Of each bridge in a tree: who is its root, and which of its ports stand by. */
const treeFacts = (index: PlanIndex): Fact[] =>
  inTree(index).map(({ id, name }) => ({
    id: treeFact(id),
    kind: "tree",
    words: `The root of the tree, and what stands by, on ${name}`,
    shownOn: { device: id },
  }));

/** What a bridge shows of the common tree: its root as it is identified, and its ports that stand by. */
function treeLines(index: PlanIndex, device: string): Line[] {
  const tree = index.derived(TREE);
  const root = tree.rootOf.get(device);
  const gear = index.plan.device.get(root?.id ?? "");
  if (root === undefined || gear === undefined) return [];
  const standing = index.portsOf(device).flatMap(({ id, label }) => {
    const role = tree.ports.get(id)?.role;
    return role === "alternate" || role === "backup" ? [label] : [];
  });
  const mac = bridgeAddress(index, gear);
  return [
    ["Root of the tree", `${gear.name}, priority ${root.priority}${mac === null ? "" : `, ${mac}`}`],
    ["Ports that stand by", standing.length === 0 ? "none" : standing.join(", ")],
  ];
}

/** The end of a cable whose speed gear with pages shows; null for none, or where the speed is not known. */
function shownEnd(index: PlanIndex, { a, b }: Link): { readonly port: Port; readonly mbps: number } | null {
  const [one, two] = [index.plan.port.get(a), index.plan.port.get(b)];
  if (one === undefined || two === undefined || !one.enabled || !two.enabled) return null;
  const mbps = linkSpeed(one, two);
  const port = [one, two].find(({ device }) => index.plan.device.get(device)?.bridging === "vlan");
  return port === undefined || mbps === 0 ? null : { port, mbps };
}

const speedFacts = (index: PlanIndex): Fact[] =>
  [...index.plan.link.values()].flatMap((link): Fact[] => {
    const end = shownEnd(index, link);
    if (end === null) return [];
    const words = `${speedText(end.mbps)} on ${nameOf(index, "link", link.id)}`;
    return [{ id: speedFact(link.id), kind: "speed", words, shownOn: { device: end.port.device } }];
  });

/** Ports that feed what is plugged in, each with what it may take. */
const powerFacts = (index: PlanIndex): Fact[] =>
  [...index.plan.port.values()].flatMap((port): Fact[] => {
    const load = port.poeMw === 0 || !port.enabled ? null : loadAt(index, port);
    if (load === null) return [];
    const words = `${load.name} gets its power at ${nameOf(index, "port", port.id)}`;
    return [{ id: powerFact(port.id), kind: "power", words, shownOn: { device: port.device } }];
  });

function powerLine(index: PlanIndex, port: Port): string {
  const load = port.poeMw === 0 || !port.enabled ? null : loadAt(index, port);
  return load === null ? "gives no power" : `gives ${load.name} its power, at most ${watts(load.mw)}`;
}

/** What a device's own pages show of these facts. */
export function gearLines(index: PlanIndex, device: string, wanted: ReadonlySet<string>): Line[] {
  const speeds = [...index.plan.link.values()].flatMap((link): Line[] => {
    const end = wanted.has(speedFact(link.id)) ? shownEnd(index, link) : null;
    return end === null || end.port.device !== device
      ? []
      : [[`Speed at ${nameOf(index, "port", end.port.id)}`, speedText(end.mbps)]];
  });
  const powers = index
    .portsOf(device)
    .filter(({ id }) => wanted.has(powerFact(id)))
    .map((port): Line => [`Power at ${nameOf(index, "port", port.id)}`, powerLine(index, port)]);
  return [...(wanted.has(treeFact(device)) ? treeLines(index, device) : []), ...speeds, ...powers];
}

/** All that gear shows beside its settings. */
export const gearFacts = (index: PlanIndex): Fact[] => [
  ...treeFacts(index),
  ...speedFacts(index),
  ...powerFacts(index),
];
