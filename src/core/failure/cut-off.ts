import { joinNodes, type Crossing } from "../forwarding";
import type { Fabric } from "../fabric";
import type { PlanTree } from "../spanning-tree";
import type { Split } from "./state";

/** A network between gear as it stands, to tell from what one failure cuts off of it. */
export interface Standing {
  readonly gear: Fabric;
  readonly tree: PlanTree;
  readonly vids: number[];
  readonly crossings: readonly Crossing[];
  /** Bridges that are the root of something, by their numbers: of a tree, of a region. */
  readonly roots: ReadonlySet<number>;
}

export function rootsIn({ deviceNumber }: Fabric, { named }: PlanTree): Set<number> {
  // A bridge that is in no region is a region of its own, which nobody else goes by.
  const roots = named.flatMap(({ tree }) => [
    ...tree.rootOf.values(),
    ...[...tree.regionalRootOf.values()].filter(({ region }) => region !== null),
  ]);
  return new Set(roots.flatMap(({ id }) => deviceNumber.get(id) ?? []));
}

/** What fails: one device, or one wire between gear. */
export type Gone = { readonly device: number } | { readonly wire: number };

interface Piece {
  readonly devices: readonly number[];
  readonly wires: ReadonlySet<number>;
  /** Wires and devices that hang together without a way round. */
  readonly isTree: boolean;
}

/** What still hangs together with a device when something is gone. */
function pieceFrom({ wireOf, wires, deviceOf, bridgePortsOf }: Fabric, start: number, gone: Gone): Piece {
  const devices = [start];
  const seen = new Set(devices);
  const own = new Set<number>();
  let ends = 0;
  const isGone = (wire: number) => "wire" in gone && wire === gone.wire;
  for (const device of devices) {
    for (const port of bridgePortsOf[device] ?? []) {
      const wire = wireOf[port] ?? -1;
      if (isGone(wire)) continue;
      ends += 1;
      own.add(wire);
      for (const far of wires[wire]?.bridgePorts ?? []) {
        const next = deviceOf[far] ?? device;
        if (seen.has(next) || ("device" in gone && next === gone.device)) continue;
        seen.add(next);
        devices.push(next);
      }
    }
  }
  return { devices, wires: own, isTree: ends === devices.length + own.size - 1 };
}

/** The devices that what is gone joined, each once. */
function neighbours({ wireOf, wires, deviceOf, bridgePortsOf }: Fabric, gone: Gone): number[] {
  const lost = "wire" in gone ? [gone.wire] : (bridgePortsOf[gone.device] ?? []).map((port) => wireOf[port]);
  const ports = lost.flatMap((wire) => wires[wire ?? -1]?.bridgePorts ?? []);
  const found = new Set(ports.map((port) => deviceOf[port] ?? -1));
  if ("device" in gone) found.delete(gone.device);
  return [...found];
}

/** Whether a piece stays as it is when it is cut off: no way round, nothing held back, no guard that could. */
function staysAsItIs({ gear, tree }: Standing, { devices, isTree }: Piece): boolean {
  return (
    isTree &&
    devices.every((device) =>
      (gear.bridgePortsOf[device] ?? []).every((number) => {
        const port = gear.ports[number];
        if (port === undefined || port.guards.restrictedRole || tree.shut.has(port.id)) return false;
        return (
          !tree.anywhere || ![...port.untagged, ...port.tagged].some((vid) => tree.discards(number, vid))
        );
      }),
    )
  );
}

/** On how many wires a device meets a piece. */
function meets({ wireOf, wires, deviceOf, bridgePortsOf }: Fabric, device: number, piece: Piece): number {
  const inPiece = new Set(piece.devices);
  const touching = (bridgePortsOf[device] ?? []).filter((port) =>
    wires[wireOf[port] ?? -1]?.bridgePorts.some((far) => inPiece.has(deviceOf[far] ?? -1)),
  );
  return new Set(touching.map((port) => wireOf[port])).size;
}

/** The pieces that a network falls into when something is gone. */
function piecesWithout(gear: Fabric, gone: Gone): Piece[] {
  const pieces: Piece[] = [];
  const placed = new Set<number>();
  for (const start of neighbours(gear, gone)) {
    if (placed.has(start)) continue;
    const piece = pieceFrom(gear, start, gone);
    for (const device of piece.devices) placed.add(device);
    pieces.push(piece);
  }
  return pieces;
}

/** The piece that all the others are cut off from; null when that one has to be settled anew itself. */
function restOf({ gear, roots }: Standing, gone: Gone, pieces: readonly Piece[]): Piece | null {
  const rooted = pieces.filter(({ devices }) => devices.some((device) => roots.has(device)));
  const [largest] = [...pieces].sort((a, b) => b.devices.length - a.devices.length);
  const rest = rooted[0] ?? largest;
  if (rest === undefined || rooted.length > 1) return null;
  if ("wire" in gone) return pieces.length === 1 ? null : rest;
  return roots.has(gone.device) || meets(gear, gone.device, rest) > 1 ? null : rest;
}

/**
 * What one failure cuts off from the rest, with its own joins; null where the rest or a piece of it has to be
 * settled anew. The rest stays as it is when it keeps every root and met what is gone on one wire only: what
 * came from there was never better than what it had (IEEE 802.1Q section 13.10), and no frame of the rest went
 * through it. A piece without a way round blocks nothing, whoever becomes its root.
 */
export function cutOff(standing: Standing, gone: Gone): Split | null {
  const { gear, tree, vids, crossings } = standing;
  // A frame that leaves in one VLAN and comes back in another joins what the rest keeps apart.
  if (crossings.length > 0) return null;
  const pieces = piecesWithout(gear, gone);
  const rest = restOf(standing, gone, pieces);
  if (rest === null && pieces.length > 0) return null;
  const off = pieces.filter((piece) => piece !== rest);
  if (!off.every((piece) => staysAsItIs(standing, piece))) return null;
  const devices = new Set(off.flatMap((piece) => piece.devices));
  // Nothing goes through what is dark any more.
  if ("device" in gone) devices.add(gone.device);
  const lost = new Set("device" in gone ? gear.bridgePortsOf[gone.device] : []);
  const wires = off.flatMap((piece) => [...piece.wires].flatMap((wire) => gear.wires[wire] ?? []));
  const kept = wires.map((wire) => ({
    ...wire,
    bridgePorts: wire.bridgePorts.filter((port) => !lost.has(port)),
  }));
  return { devices, nodes: kept.length === 0 ? null : joinNodes({ ...gear, wires: kept }, tree, vids).nodes };
}
