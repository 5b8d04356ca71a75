"use client";

import { Background, ConnectionMode, Controls, ReactFlow, ReactFlowProvider, useNodesState, useReactFlow, type Edge, type Node } from "@xyflow/react";
import { useEffect, useMemo } from "react";
import { jacketOf } from "@/core/sheets";
import { usePlan, useIndex } from "../../plan-store/use-plan";
import { useUi } from "../../frame/use-ui";
import { CableEdge, type CableData } from "./CableEdge";
import { DeviceNode, PlaceNode, type DeviceData } from "./DeviceNode";
import { BOX, drawCables, facingSides } from "./cable-ends";
import { useLayout } from "./use-layout";

const NODE_TYPES = { device: DeviceNode, place: PlaceNode };
const EDGE_TYPES = { cable: CableEdge };
const MARGIN = { side: 14, top: 30, bottom: 14 } as const;

export const Diagram = () => <ReactFlowProvider><Drawing /></ReactFlowProvider>;

const ORIGIN = { x: 0, y: 0 };

function handlesOf(from: { x: number; y: number } = ORIGIN, to: { x: number; y: number } = ORIGIN): { sourceHandle: string; targetHandle: string } {
  const { out, into } = facingSides(from, to);
  return { sourceHandle: out, targetHandle: into };
}

/** A box around the devices of each place. */
function placeNodes(devices: readonly Node<DeviceData>[]): Node[] {
  const groups = new Map<string, Node<DeviceData>[]>();
  for (const node of devices) if (node.data.place !== "") groups.set(node.data.place, [...(groups.get(node.data.place) ?? []), node]);
  return [...groups].map(([place, nodes]) => {
    const [xs, ys] = [nodes.map((n) => n.position.x), nodes.map((n) => n.position.y)];
    const [left, top] = [Math.min(...xs) - MARGIN.side, Math.min(...ys) - MARGIN.top];
    return {
      id: `place ${place}`, type: "place", position: { x: left, y: top }, data: { place }, draggable: false, selectable: false, focusable: false, zIndex: -1,
      width: Math.max(...xs) + BOX.width + MARGIN.side - left, height: Math.max(...ys) + BOX.height + MARGIN.bottom - top,
    };
  });
}

function Drawing() {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const laid = useLayout(index);
  const flow = useReactFlow();
  const at = useMemo(() => new Map([...index.plan.device.values()].map((device) => [device.id, device.position ?? laid?.places[device.id] ?? ORIGIN])), [index, laid]);
  const drawn = useMemo(() => drawCables(index, laid), [index, laid]);
  const made = useMemo((): Node<DeviceData>[] => (laid === null ? [] : [...index.plan.device.values()].map((device) => {
    const ids = new Set([device.id, ...index.portsOf(device.id).map((port) => port.id)]);
    const worst = list.find((finding) => finding.subjects.some((subject) => ids.has(subject.id)))?.severity ?? null;
    return {
      id: device.id, type: "device", position: at.get(device.id) ?? ORIGIN, ...BOX,
      data: { name: device.name, place: device.place, model: device.model, worst, chosen: selection?.what === "device" && selection.id === device.id },
    };
  })), [index, list, laid, selection, at]);
  const [nodes, setNodes, onNodesChange] = useNodesState<Node<DeviceData>>([]);
  useEffect(() => setNodes(made), [made, setNodes]);
  const laidOut = laid !== null;
  useEffect(() => { if (laidOut) requestAnimationFrame(() => void flow.fitView({ padding: 0.08, maxZoom: 1 })); }, [laidOut, index.plan.device.size, flow]);
  const edges = useMemo((): Edge<CableData>[] => drawn.map(({ id, first, last, route }) => ({
    id, type: "cable", source: first.device, target: last.device, ...handlesOf(at.get(first.device), at.get(last.device)), ariaLabel: `Cable ${index.plan.link.get(id)?.label ?? ""}`,
    data: { from: first.label, to: last.label, route, jacket: jacketOf(index, first), missing: [...jacketOf(index, first).missing, ...jacketOf(index, last).missing], chosen: selection?.what === "link" && selection.id === id },
  })), [index, drawn, selection, at]);
  const moved = [...index.plan.device.values()].some((device) => device.position !== null);
  const keep = (node: Node) => {
    const position = { x: Math.round(node.position.x), y: Math.round(node.position.y) };
    edit({ planner: "place-device", summary: `Moved ${index.plan.device.get(node.id)?.name ?? ""} on the drawing`, args: { device: node.id, ...position } }, ({ draft }) => draft.patch("device", node.id, { position }));
  };
  const arrange = () => {
    edit({ planner: "arrange-devices", summary: "Arranged the drawing anew", args: {} }, ({ draft }) => { for (const device of draft.all("device")) if (device.position !== null) draft.patch("device", device.id, { position: null }); });
    requestAnimationFrame(() => void flow.fitView({ padding: 0.08, maxZoom: 1 }));
  };
  return (
    <div className="relative min-h-52 flex-1" data-laid-out={laidOut}>
      <ReactFlow<Node, Edge<CableData>>
        nodes={[...placeNodes(nodes), ...nodes]} edges={edges} nodeTypes={NODE_TYPES} edgeTypes={EDGE_TYPES} onNodesChange={(changes) => onNodesChange(changes.filter((change) => !("id" in change) || !change.id.startsWith("place ")) as Parameters<typeof onNodesChange>[0])}
        onNodeDragStop={(_, node) => keep(node)} onNodeClick={(_, node) => { if (node.type === "device") select({ what: "device", id: node.id }); }} onEdgeClick={(_, edge) => select({ what: "link", id: edge.id })}
        nodesConnectable={false} connectionMode={ConnectionMode.Loose} deleteKeyCode={null} minZoom={0.15} maxZoom={2} fitView aria-label="Cabling diagram"
      >
        <Background gap={24} color="var(--hair)" />
        <Controls showInteractive={false} position="top-right" className="[&_button]:!border-rule [&_button]:!bg-panel [&_button]:!text-ink [&_svg]:!fill-ink" />
      </ReactFlow>
      {moved ? <button type="button" className="button absolute top-2 left-2 z-10" onClick={arrange}>Arrange anew</button> : null}
    </div>
  );
}
