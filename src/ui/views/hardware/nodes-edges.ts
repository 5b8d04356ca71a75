import type { Edge, Node } from "@xyflow/react";
import type { Finding, Severity } from "@/core/checks";
import { putInto } from "@/core/kernel";
import { nameOf, type PlanIndex } from "@/core/plan";
import type { Outcome } from "@/core/probe";
import { jacketOf } from "@/core/sheets";
import { LANE } from "@/workers/layout-blocks";
import type { Laid, LayoutPoint } from "@/workers/layout-model";
import { BOX, facingSides, inTrays, type DrawnCable } from "./cable-ends";
import type { CableData } from "./CableEdge";
import type { DeviceData } from "./DeviceNode";

const MARGIN = { side: 14, top: 30, bottom: 14 } as const;

export const ORIGIN = { x: 0, y: 0 };
function handlesOf(
  from: { x: number; y: number } = ORIGIN,
  to: { x: number; y: number } = ORIGIN,
): { sourceHandle: string; targetHandle: string } {
  const { out, into } = facingSides(from, to);
  return { sourceHandle: out, targetHandle: into };
}

/** A box around the devices of each place. */
export function placeNodes(devices: readonly Node<DeviceData>[]): Node[] {
  const groups = new Map<string, Node<DeviceData>[]>();
  for (const node of devices) if (node.data.place !== "") putInto(groups, node.data.place, node);
  return [...groups].map(([place, nodes]) => {
    const [xs, ys] = [nodes.map((n) => n.position.x), nodes.map((n) => n.position.y)];
    const [left, top] = [
      Math.min(...nodes.map((n) => n.position.x - n.data.lane)) - MARGIN.side,
      Math.min(...ys) - MARGIN.top,
    ];
    const [width, height] = [
      Math.max(...xs) + BOX.width + MARGIN.side - left,
      Math.max(...ys) + BOX.height + MARGIN.bottom - top,
    ];
    return {
      id: `place ${place}`,
      type: "place",
      position: { x: left, y: top },
      data: { place },
      draggable: false,
      selectable: false,
      focusable: false,
      zIndex: -1,
      // Its size is known: a box that has to be measured is drawn, measured and drawn again, without end when
      // it is made anew each time.
      width,
      height,
      measured: { width, height },
    };
  });
}

const stopAt = (lit: Lit, device: string) => (lit.stop === device ? ("stop" as const) : null);

function lightOf(lit: Lit, device: string): DeviceData["light"] {
  if (lit.stop === device) return "stop";
  return lit.devices.has(device) ? "lit" : "dim";
}

const cableLight = ({ ports }: Lit, a: string, b: string) =>
  ports.has(a) && ports.has(b) ? ("lit" as const) : ("dim" as const);

/** The worst finding of each device, its ports' included. */
export function worstByDevice(index: PlanIndex, list: readonly Finding[]): ReadonlyMap<string, Severity> {
  const worst = new Map<string, Severity>();
  // The list begins with the worst: the first one of a device stays.
  for (const { subjects, severity } of list)
    for (const { kind, id } of subjects) {
      const owner = kind === "port" ? index.plan.port.get(id)?.device : undefined;
      const device = kind === "device" ? id : owner;
      if (device !== undefined && !worst.has(device)) worst.set(device, severity);
    }
  return worst;
}

export interface Lit {
  readonly ports: ReadonlySet<string>;
  readonly devices: ReadonlySet<string>;
  readonly stop: string | null;
}

export function litBy(outcome: Outcome): Lit {
  const last = outcome.stopsAt === null ? undefined : outcome.steps[outcome.stopsAt - 1];
  return {
    ports: new Set(outcome.steps.flatMap((step) => step.ports)),
    devices: new Set(outcome.steps.flatMap((step) => step.device ?? [])),
    stop: last?.device ?? null,
  };
}

/** What of the drawing stands where, and which of it is in a tray of devices that hang on one cable each. */
export interface Placed {
  readonly at: ReadonlyMap<string, LayoutPoint>;
  readonly trays: ReadonlySet<string>;
}

/** Where everything stands: where somebody has put it, else where the layout has. */
export const placedBy = (index: PlanIndex, laid: Laid | null): Placed => ({
  at: new Map(
    [...index.plan.device.values()].map(({ id, position }) => [id, position ?? laid?.places[id] ?? ORIGIN]),
  ),
  trays: inTrays(index, laid),
});

export const laneOf = ({ trays }: Placed, { id, position }: { id: string; position: unknown }): number =>
  trays.has(id) && position === null ? LANE : 0;

export interface Looks {
  readonly worst: ReadonlyMap<string, Severity>;
  readonly chosen: string | null;
  readonly lit: Lit | null;
}

export const deviceNodes = (
  index: PlanIndex,
  placed: Placed,
  { worst, chosen, lit }: Looks,
): Node<DeviceData>[] =>
  [...index.plan.device.values()].map((device) => ({
    id: device.id,
    type: "device",
    position: placed.at.get(device.id) ?? ORIGIN,
    ...BOX,
    measured: BOX,
    ariaLabel: device.name,
    selected: device.id === chosen,
    data: {
      name: device.name,
      place: device.place,
      model: device.model,
      lane: laneOf(placed, device),
      worst: lit === null ? (worst.get(device.id) ?? null) : stopAt(lit, device.id),
      chosen: device.id === chosen,
      light: lit === null ? "plain" : lightOf(lit, device.id),
    },
  }));

export const cableEdges = (
  index: PlanIndex,
  drawn: readonly DrawnCable[],
  at: Placed["at"],
  { chosen, lit }: Pick<Looks, "chosen" | "lit">,
): Edge<CableData>[] =>
  drawn.map(({ id, first, last, route, tapeAt }) => {
    const [near, far] = [jacketOf(index, first), jacketOf(index, last)];
    return {
      id,
      type: "cable",
      source: first.device,
      target: last.device,
      ...handlesOf(at.get(first.device), at.get(last.device)),
      ariaLabel: `Cable ${nameOf(index, "port", first.id)} to ${nameOf(index, "port", last.id)}`,
      data: {
        from: first.label,
        to: last.label,
        route,
        jacket: near,
        missing: [...near.missing, ...far.missing],
        chosen: chosen === id,
        tapeAt,
        light: lit === null ? "plain" : cableLight(lit, first.id, last.id),
      },
    };
  });
