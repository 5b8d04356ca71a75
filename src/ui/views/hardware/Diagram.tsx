"use client";

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
import { useEffect, useMemo } from "react";
import { arrangeDevices } from "@/core/commands";
import type { Outcome } from "@/core/probe";
import { useUi } from "../../frame/use-ui";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { drawCables } from "./cable-ends";
import { CableEdge, type CableData } from "./CableEdge";
import { DeviceNode, PlaceNode, type DeviceData } from "./DeviceNode";
import { LayoutProgress } from "./LayoutProgress";
import { cableEdges, deviceNodes, litBy, placedBy, placeNodes, worstByDevice, type Lit } from "./nodes-edges";
import { saveDrawing } from "./save-drawing";
import { useLayout } from "./use-layout";
import { useMoved } from "./use-moved";

const NODE_TYPES = { device: DeviceNode, place: PlaceNode };
const EDGE_TYPES = { cable: CableEdge };
/** More devices than this are drawn only where they are seen. */
const DRAWN_WHOLE = 80;
const FIT = { padding: 0.08, maxZoom: 1 };

/** What a probe lights on the drawing: the gear and the ports on its way, and where it stops. */
export const Diagram = ({ lit = null }: { lit?: Outcome | null }) => (
  <ReactFlowProvider>
    <Drawing lit={lit} />
  </ReactFlowProvider>
);

/** Where everything stands on the screen. */
function usePlaced() {
  const index = useIndex();
  const { laid, progress } = useLayout(index);
  const placed = useMemo(() => placedBy(index, laid), [index, laid]);
  const drawn = useMemo(() => drawCables(index, laid), [index, laid]);
  return { placed, drawn, progress, isLaid: laid !== null };
}

type Standing = ReturnType<typeof usePlaced>;

/** The boxes, which follow the pointer while one is dragged and are kept where it is let go. */
function useBoxes({ placed, isLaid }: Standing, chosen: string | null, lit: Lit | null) {
  const index = useIndex();
  const list = usePlan((state) => state.list);
  const select = useUi((state) => state.select);
  const worst = useMemo(() => worstByDevice(index, list), [index, list]);
  const made = useMemo(
    () => (isLaid ? deviceNodes(index, placed, { worst, chosen, lit }) : []),
    [index, placed, worst, chosen, lit, isLaid],
  );
  const [nodes, setNodes, onNodesChange] = useNodesState<Node<DeviceData>>([]);
  useEffect(() => setNodes(made), [made, setNodes]);
  const all = useMemo(() => [...placeNodes(nodes), ...nodes], [nodes]);
  const { move, keepNow } = useMoved();
  const onChange = (changes: readonly NodeChange<Node>[]) => {
    const own = changes.filter((change) => !("id" in change) || !change.id.startsWith("place "));
    onNodesChange(own as NodeChange<Node<DeviceData>>[]);
    for (const change of own) {
      if (change.type === "select" && change.selected && change.id !== chosen)
        select({ what: "device", id: change.id });
      if (change.type !== "position" || change.dragging === true || change.position === undefined) continue;
      const { id, position } = change;
      const before = placed.at.get(id);
      if (before?.x !== Math.round(position.x) || before.y !== Math.round(position.y)) move(id, position);
    }
  };
  return { nodes: all, onChange, keepNow };
}

function Drawing({ lit: outcome }: { lit: Outcome | null }) {
  const index = useIndex();
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const flow = useReactFlow();
  const lit = useMemo(() => (outcome === null ? null : litBy(outcome)), [outcome]);
  const standing = usePlaced();
  const { placed, drawn, progress, isLaid } = standing;
  const { nodes, onChange, keepNow } = useBoxes(
    standing,
    selection?.what === "device" ? selection.id : null,
    lit,
  );
  const chosen = selection?.what === "link" ? selection.id : null;
  const edges = useMemo(
    () => cableEdges(index, drawn, placed.at, { chosen, lit }),
    [index, drawn, placed, chosen, lit],
  );
  useEffect(() => {
    if (isLaid) requestAnimationFrame(() => void flow.fitView(FIT));
  }, [isLaid, index.plan.device.size, flow]);
  return (
    <div className="relative min-h-52 flex-1" data-laid-out={isLaid}>
      <ReactFlow<Node, Edge<CableData>>
        nodes={nodes}
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
      <Tools standing={standing} keepNow={keepNow} />
      {progress === null ? null : <LayoutProgress progress={progress} />}
    </div>
  );
}

function Tools({
  standing: { placed, drawn, isLaid },
  keepNow,
}: {
  standing: Standing;
  keepNow: () => void;
}) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const flow = useReactFlow();
  const isMoved = [...index.plan.device.values()].some((device) => device.position !== null);
  const arrange = () => {
    keepNow();
    edit(arrangeDevices({}));
    requestAnimationFrame(() => void flow.fitView(FIT));
  };
  const save = (kind: "svg" | "png") => void saveDrawing(kind, index, drawn, placed);
  return (
    <div className="absolute top-2 left-2 z-10 flex gap-[6px]">
      {isMoved ? (
        <button type="button" className="button" onClick={arrange}>
          Arrange anew
        </button>
      ) : null}
      {isLaid ? (
        <>
          <button type="button" className="button" onClick={() => save("svg")}>
            Save SVG
          </button>
          <button type="button" className="button" onClick={() => save("png")}>
            Save PNG
          </button>
        </>
      ) : null}
    </div>
  );
}
