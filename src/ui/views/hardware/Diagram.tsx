"use client";

import { arrangeDevices } from "@/core/commands";
import {
  Background,
  ConnectionMode,
  Controls,
  ReactFlow,
  ReactFlowProvider,
  useNodesState,
  useReactFlow,
  type Edge,
  type Node,
  type NodeChange,
} from "@xyflow/react";
import { useEffect, useMemo, useState } from "react";
import { toast } from "sonner";
import type { Finding, Severity } from "@/core/checks";
import { counted } from "@/core/repairs";
import { nameOf, type PlanIndex } from "@/core/plan";
import type { Outcome } from "@/core/probe";
import { jacketOf } from "@/core/sheets";
import { download, downloadBlob, fileName, pngOf } from "../../kit/download";
import { usePlan, useIndex } from "../../plan-store/use-plan";
import { useUi } from "../../frame/use-ui";
import { CableEdge, type CableData } from "./CableEdge";
import { DeviceNode, PlaceNode, type DeviceData } from "./DeviceNode";
import { LANE } from "@/workers/layout-blocks";
import { BOX, drawCables, facingSides, inTrays } from "./cable-ends";
import { drawingSvg } from "./drawing-svg";
import { useLayout, type Progress } from "./use-layout";
import { useMoved } from "./use-moved";

const NODE_TYPES = { device: DeviceNode, place: PlaceNode };
const EDGE_TYPES = { cable: CableEdge };
const MARGIN = { side: 14, top: 30, bottom: 14 } as const;

/** What a probe lights on the drawing: the gear and the ports on its way, and where it stops. */
export const Diagram = ({ lit = null }: { lit?: Outcome | null }) => (
  <ReactFlowProvider>
    <Drawing lit={lit} />
  </ReactFlowProvider>
);

const ORIGIN = { x: 0, y: 0 };
/** More devices than this are drawn only where they are seen. */
const DRAWN_WHOLE = 80;

function handlesOf(
  from: { x: number; y: number } = ORIGIN,
  to: { x: number; y: number } = ORIGIN,
): { sourceHandle: string; targetHandle: string } {
  const { out, into } = facingSides(from, to);
  return { sourceHandle: out, targetHandle: into };
}

/** A box around the devices of each place. */
function placeNodes(devices: readonly Node<DeviceData>[]): Node[] {
  const groups = new Map<string, Node<DeviceData>[]>();
  for (const node of devices)
    if (node.data.place !== "") groups.set(node.data.place, [...(groups.get(node.data.place) ?? []), node]);
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
function worstByDevice(index: PlanIndex, list: readonly Finding[]): ReadonlyMap<string, Severity> {
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

interface Lit {
  readonly ports: ReadonlySet<string>;
  readonly devices: ReadonlySet<string>;
  readonly stop: string | null;
}

function litBy(outcome: Outcome): Lit {
  const last = outcome.stopsAt === null ? undefined : outcome.steps[outcome.stopsAt - 1];
  return {
    ports: new Set(outcome.steps.flatMap((step) => step.ports)),
    devices: new Set(outcome.steps.flatMap((step) => step.device ?? [])),
    stop: last?.device ?? null,
  };
}

function Drawing({ lit: outcome }: { lit: Outcome | null }) {
  const lit = useMemo(() => (outcome === null ? null : litBy(outcome)), [outcome]);
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const { laid, progress } = useLayout(index);
  const flow = useReactFlow();
  const at = useMemo(
    () =>
      new Map(
        [...index.plan.device.values()].map((device) => [
          device.id,
          device.position ?? laid?.places[device.id] ?? ORIGIN,
        ]),
      ),
    [index, laid],
  );
  const drawn = useMemo(() => drawCables(index, laid), [index, laid]);
  const trays = useMemo(() => inTrays(index, laid), [index, laid]);
  const worst = useMemo(() => worstByDevice(index, list), [index, list]);
  const chosen = selection?.what === "device" ? selection.id : null;
  const made = useMemo(
    (): Node<DeviceData>[] =>
      laid === null
        ? []
        : [...index.plan.device.values()].map((device) => ({
            id: device.id,
            type: "device",
            position: at.get(device.id) ?? ORIGIN,
            ...BOX,
            measured: BOX,
            ariaLabel: device.name,
            selected: device.id === chosen,
            data: {
              name: device.name,
              place: device.place,
              model: device.model,
              lane: trays.has(device.id) && device.position === null ? LANE : 0,
              worst: lit === null ? (worst.get(device.id) ?? null) : stopAt(lit, device.id),
              chosen: device.id === chosen,
              light: lit === null ? "plain" : lightOf(lit, device.id),
            },
          })),
    [index, worst, laid, trays, chosen, at, lit],
  );
  const [nodes, setNodes, onNodesChange] = useNodesState<Node<DeviceData>>([]);
  useEffect(() => setNodes(made), [made, setNodes]);
  const all = useMemo(() => [...placeNodes(nodes), ...nodes], [nodes]);
  const laidOut = laid !== null;
  useEffect(() => {
    if (laidOut) requestAnimationFrame(() => void flow.fitView({ padding: 0.08, maxZoom: 1 }));
  }, [laidOut, index.plan.device.size, flow]);
  const chosenLink = selection?.what === "link" ? selection.id : null;
  const edges = useMemo(
    (): Edge<CableData>[] =>
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
            chosen: chosenLink === id,
            tapeAt,
            light: lit === null ? "plain" : cableLight(lit, first.id, last.id),
          },
        };
      }),
    [index, drawn, chosenLink, at, lit],
  );
  const moved = [...index.plan.device.values()].some((device) => device.position !== null);
  const { move: keepMoved, keepNow } = useMoved();
  const onChange = (changes: readonly NodeChange<Node>[]) => {
    const own = changes.filter((change) => !("id" in change) || !change.id.startsWith("place "));
    onNodesChange(own as NodeChange<Node<DeviceData>>[]);
    for (const change of own) {
      if (change.type === "select" && change.selected && change.id !== chosen)
        select({ what: "device", id: change.id });
      if (change.type !== "position" || change.dragging === true || change.position === undefined) continue;
      const { id, position } = change;
      const before = at.get(id);
      if (before?.x !== Math.round(position.x) || before.y !== Math.round(position.y))
        keepMoved(id, position);
    }
  };
  const arrange = () => {
    keepNow();
    edit(arrangeDevices({}));
    requestAnimationFrame(() => void flow.fitView({ padding: 0.08, maxZoom: 1 }));
  };
  const save = async (kind: "svg" | "png") => {
    const style = getComputedStyle(document.documentElement);
    const { svg, width, height } = drawingSvg(
      {
        title: `${index.plan.site.name}: cabling`,
        devices: [...index.plan.device.values()].map((device) => ({
          device,
          at: at.get(device.id) ?? ORIGIN,
          lane: trays.has(device.id) && device.position === null ? LANE : 0,
        })),
        cables: drawn.map(({ id, first, last, route, tapeAt }) => ({
          label: index.plan.link.get(id)?.label ?? "",
          from: first.label,
          to: last.label,
          fromAt: at.get(first.device) ?? ORIGIN,
          toAt: at.get(last.device) ?? ORIGIN,
          route,
          tapeAt,
          jacket: jacketOf(index, first),
        })),
      },
      (name) => style.getPropertyValue(`--tape-${name}`).trim(),
    );
    const name = fileName(index.plan.site.name, `cabling.${kind}`);
    if (kind === "svg") return download(name, "image/svg+xml", svg);
    const png = await pngOf(svg, width, height);
    if (png === null) toast.error("This browser can't make a PNG of the drawing; save it as SVG.");
    else downloadBlob(name, png);
  };
  return (
    <div className="relative min-h-52 flex-1" data-laid-out={laidOut}>
      <ReactFlow<Node, Edge<CableData>>
        nodes={all}
        edges={edges}
        nodeTypes={NODE_TYPES}
        edgeTypes={EDGE_TYPES}
        onNodesChange={onChange}
        onlyRenderVisibleElements={index.plan.device.size > DRAWN_WHOLE}
        onNodeClick={(_, node) => {
          if (node.type === "device") select({ what: "device", id: node.id });
        }}
        onEdgeClick={(_, edge) => select({ what: "link", id: edge.id })}
        onEdgesChange={(changes) => {
          for (const change of changes)
            if (change.type === "select" && change.selected) select({ what: "link", id: change.id });
        }}
        nodesConnectable={false}
        connectionMode={ConnectionMode.Loose}
        deleteKeyCode={null}
        minZoom={0.05}
        maxZoom={2}
        fitView
        aria-label="Cabling diagram"
      >
        <Background gap={24} color="var(--hair)" />
        <Controls
          showInteractive={false}
          position="top-right"
          className="[&_button]:!border-rule [&_button]:!bg-panel [&_button]:!text-ink [&_svg]:!fill-ink"
        />
      </ReactFlow>
      <div className="absolute top-2 left-2 z-10 flex gap-[6px]">
        {moved ? (
          <button type="button" className="button" onClick={arrange}>
            Arrange anew
          </button>
        ) : null}
        {laidOut ? (
          <>
            <button type="button" className="button" onClick={() => void save("svg")}>
              Save SVG
            </button>
            <button type="button" className="button" onClick={() => void save("png")}>
              Save PNG
            </button>
          </>
        ) : null}
      </div>
      {progress === null ? null : <LayoutProgress progress={progress} />}
    </div>
  );
}

/** How far a layout is that takes its time, with a way to call it off. */
function LayoutProgress({ progress: { pass, most, devices, cables, cancel } }: { progress: Progress }) {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setSeconds((n) => n + 1), 1000);
    return () => clearInterval(timer);
  }, []);
  return (
    <div
      role="status"
      className="absolute inset-x-0 top-1/3 z-10 mx-auto w-80 border border-ink bg-panel p-3 text-13"
    >
      <p className="mb-1 font-semibold">
        Laying out {counted(devices, "device", "devices")} and {counted(cables, "cable", "cables")}
      </p>
      <progress className="mb-2 h-2 w-full accent-act" max={most} value={pass - 0.5} aria-label="Layout" />
      <p className="flex items-center text-ink2">
        pass {pass} of at most {most}, {seconds} s so far
        <button type="button" className="button ml-auto" onClick={cancel}>
          Plain rows instead
        </button>
      </p>
    </div>
  );
}
