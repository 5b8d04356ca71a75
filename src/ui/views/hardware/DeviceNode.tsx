import { clsx } from "clsx";
import { Handle, Position, type NodeProps } from "@xyflow/react";
import type { Severity } from "@/core/checks";
import { SeveritySign, severityColour } from "../../kit/signs";

export type DeviceData = {
  readonly name: string;
  readonly place: string;
  readonly model: string;
  /** Room to its left for the tray that its cable comes down in. */ readonly lane: number;
  readonly worst: Severity | null;
  readonly chosen: boolean;
  /** Whether a probe came past. */ readonly light: "plain" | "lit" | "stop" | "dim";
};

const SIDES = [Position.Top, Position.Right, Position.Bottom, Position.Left] as const;
const HANDLE = "!h-px !w-px !min-w-0 !min-h-0 !border-0 !bg-transparent";

const LOOKS = {
  stop: "border-stop outline-2 outline-stop",
  lit: "border-act outline-2 outline-act",
  dim: "border-rule opacity-60",
  plain: "border-ink",
};

/** A device on the drawing: its name, what it is, and the sign of its worst finding. */
export function DeviceNode({ data }: NodeProps) {
  const { name, model, worst, chosen, light } = data as DeviceData;
  return (
    <div
      className={clsx(
        "h-[50px] w-[156px] rounded border bg-panel px-3 py-[6px]",
        LOOKS[light === "plain" && chosen ? "lit" : light],
      )}
    >
      {SIDES.map((side) => (
        <Handle key={side} id={side} type="source" position={side} className={HANDLE} isConnectable={false} />
      ))}
      <p className="flex items-center gap-1 text-14 leading-[18px] font-semibold">
        <span className="truncate">{name}</span>
        {worst === null ? null : (
          <span className={`ml-auto ${severityColour(worst)}`}>
            <SeveritySign severity={worst} />
          </span>
        )}
      </p>
      <p className="truncate text-12 leading-[16px] text-ink2">{model}</p>
    </div>
  );
}

/** A room or cabinet around its devices. */
export function PlaceNode({ data, width, height }: NodeProps) {
  return (
    <div
      className="pointer-events-none border border-hair bg-paper/60 px-2 py-1 text-12 font-semibold text-ink2"
      style={{ width, height }}
    >
      {String(data.place)}
    </div>
  );
}
