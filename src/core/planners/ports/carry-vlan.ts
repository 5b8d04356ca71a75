import type { PlanEdits, PlanIndex, Port, Vid } from "../../plan";
import { FABRIC, isConsistent, modeOf } from "../../fabric";
import { portCarries, type PortCarry } from "../../forwarding";
import { fieldsOf } from "./paint-ports";

const inOrder = (vids: Iterable<Vid>): Vid[] => [...new Set(vids)].sort((a, b) => a - b);

/** Adds a tagged VLAN to ports that lack it. */
export function carryOn(edits: PlanEdits, ports: readonly string[], vid: Vid): void {
  for (const id of ports) {
    const port = edits.need("port", id);
    if (port.tagged.includes(vid) || port.untagged.includes(vid)) continue;
    edits.patch("port", id, { enabled: true, tagged: inOrder([...port.tagged, vid]) });
  }
}

/**
 * The VLAN that stays untagged on a wire: the one that every port of it has so and that is needed; else,
 * where an access point or gear without VLANs is on the wire, the one they are given now. Null when nothing
 * is to be untagged.
 */
function untaggedOf(
  index: PlanIndex,
  ports: readonly Port[],
  {
    need,
    mixedAllowed,
    hasPlain,
  }: { readonly need: ReadonlySet<number>; readonly mixedAllowed: boolean; readonly hasPlain: boolean },
): Vid | null {
  if (!mixedAllowed) return null;
  const own = ports.map((port) => port.pvid);
  const [first] = own;
  if (first !== undefined && first !== null && need.has(first) && own.every((vid) => vid === first))
    return first;
  const isPoint = (port: Port) => index.plan.device.get(port.device)?.kind === "accessPoint";
  if (!hasPlain && !ports.some(isPoint)) return null;
  const given = [...ports.filter((port) => !isPoint(port)), ...ports.filter(isPoint)]
    .map((port) => port.pvid)
    .find((vid) => vid !== null && need.has(vid));
  return given ?? null;
}

const isWrong = (carry: PortCarry | undefined, port: Port): boolean =>
  carry !== undefined && (carry.missing.length > 0 || carry.needless.length > 0 || !isConsistent(port));

/**
 * Sets on every port between gear exactly the VLANs that it has to carry, the same at both ends of each
 * cable: what is missing is added, what nobody needs is taken off. `only` limits it to cables with one of
 * these ports. Members of a LAG get what its first port gets. Ports that are right already are not touched.
 */
// eslint-disable-next-line complexity -- the conditions under which a wire is left alone
export function carryExactly(
  edits: PlanEdits,
  index: PlanIndex,
  only: ReadonlySet<string> | null = null,
): void {
  const fabric = index.derived(FABRIC);
  const carries = portCarries(index);
  const plainWires = new Set<number>();
  for (const [number, port] of fabric.ports.entries())
    if (index.plan.device.get(port.device)?.bridging === "plain") plainWires.add(fabric.wireOf[number] ?? -1);
  for (const [at, wire] of fabric.wires.entries()) {
    const ports = wire.bridgePorts.flatMap((number) => fabric.ports[number] ?? []);
    if (ports.length < 2 || (only !== null && !ports.some((port) => only.has(port.id)))) continue;
    if (!ports.some((port) => isWrong(carries.get(port.id), port))) continue;
    const need = new Set(ports.flatMap((port) => [...(carries.get(port.id)?.need ?? [])]));
    const mixes = ports.every((port) => index.plan.device.get(port.device)?.abilities.mixesTagged !== false);
    const untagged = untaggedOf(index, ports, { need, mixedAllowed: mixes, hasPlain: plainWires.has(at) });
    for (const port of ports) {
      const own = carries.get(port.id)?.need ?? need;
      const tip = untagged !== null && own.has(untagged) ? untagged : null;
      write(edits, index, port, {
        untagged: tip,
        tagged: inOrder([...own].filter((vid) => vid !== tip) as Vid[]),
      });
    }
  }
}

function write(
  edits: PlanEdits,
  index: PlanIndex,
  port: Port,
  { untagged, tagged }: { readonly untagged: Vid | null; readonly tagged: readonly Vid[] },
): void {
  const empty = untagged === null && tagged.length === 0;
  const members = port.lag === null ? [port] : [...(index.groups("portsByLag").get(port.lag) ?? [])];
  for (const member of members) {
    const fields = fieldsOf({ role: "trunk", untagged, tagged });
    // A port that has been decided keeps its guards; one that carries nothing any more waits to be decided.
    const { pvid = null, untagged: own = [], tagged: others = [], admit = "all" } = fields;
    const membership = { pvid, untagged: own, tagged: others, admit: empty ? ("all" as const) : admit };
    edits.patch("port", member.id, modeOf(member) === "undecided" && !empty ? fields : membership);
  }
}
