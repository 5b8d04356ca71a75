"use client";

import { clsx } from "clsx";
import { addLeg } from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import { formatAddress } from "@/core/address";
import { legAddressIn } from "@/core/planners";
import { segmentsInOrder, type GatewayLeg, type GatewayLine, type GatewaySheet } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";

/**
 * The outside on paper at the left, the inside on the panel at the right, the wall with the device between
 * them.
 */
export function GatewayDrawing({ sheet }: { sheet: GatewaySheet }) {
  const select = useUi((state) => state.select);
  const { device, lines, legs, does } = sheet;
  return (
    <section
      aria-label="Lines and legs"
      className={clsx(
        "relative grid min-w-[640px] grid-cols-[minmax(300px,1fr)_150px_minmax(250px,1fr)]",
        "border-b border-ink bg-paper",
      )}
    >
      <div className="py-3 pl-4">
        <h2 className="mb-2 text-12 font-normal text-ink2">Outside</h2>
        <div className="flex flex-col gap-3">
          {lines.length === 0 ? (
            <p className="pr-4 text-13 text-ink2">
              No line ends here: what it does not know goes to its own gateway.
            </p>
          ) : null}
          {lines.map((gatewayLine) => (
            <LineBox key={gatewayLine.leg.id} drawn={gatewayLine} />
          ))}
        </div>
      </div>
      <div className="relative flex items-center">
        <span
          aria-hidden
          className="hatched absolute inset-y-0 left-1/2 w-4 -translate-x-1/2 border-x border-rule"
        />
        <button
          type="button"
          className="relative z-[1] w-full border-2 border-act bg-panel px-3 py-3 text-left"
          onClick={() => select({ what: "device", id: device.id })}
        >
          <b className="block truncate font-semibold">{device.name}</b>
          {[device.place, ...does]
            .filter((words) => words !== "")
            .map((words) => (
              <span key={words} className="block truncate text-13 text-ink2">
                {words}
              </span>
            ))}
        </button>
      </div>
      <div className="bg-panel py-3 pr-4">
        <h2 className="mb-2 pl-10 text-12 font-normal text-ink2">Inside</h2>
        <ul aria-label="Legs">
          {legs.map((gatewayLeg) => (
            <LegRow key={gatewayLeg.leg.id} drawn={gatewayLeg} />
          ))}
        </ul>
        <AddLeg sheet={sheet} />
        {legs.length === 0 ? (
          <p className="pl-10 text-13 text-ink2">It has no address in a segment.</p>
        ) : null}
      </div>
    </section>
  );
}

const Cable = () => <span aria-hidden className="h-[5px] min-w-4 flex-1 bg-ink" />;

/** A line with its provider's box and the tag it wants, on its cable to the device. */
function LineBox({ drawn }: { drawn: GatewayLine }) {
  const select = useUi((state) => state.select);
  const { line, says, use, box } = drawn;
  return (
    <div>
      <div className="flex items-center">
        <button
          type="button"
          className="w-[178px] flex-none border border-rule bg-panel px-3 py-2 text-left"
          onClick={() => select({ what: "line", id: line.id })}
        >
          <b className="block truncate font-semibold">{line.name}</b>
          {says.map((words) => (
            <span key={words} className="block text-12 text-ink2">
              {words}
            </span>
          ))}
        </button>
        <Cable />
        {line.vlanTag === null ? null : (
          <span className="mono flex-none border border-ink bg-panel px-2 text-12 leading-5">
            tag {line.vlanTag}
          </span>
        )}
        {box === null ? null : (
          <span className="flex-none border-2 border-warn bg-panel px-2 py-1 text-12">
            <b className="block font-semibold">Its box</b>
            <span className="text-ink2">{box}</span>
          </span>
        )}
        <Cable />
      </div>
      <p className="mt-1 text-12 text-ink2">{use}</p>
    </div>
  );
}

function LegRow({ drawn }: { drawn: GatewayLeg }) {
  const select = useUi((state) => state.select);
  const { leg, segment, addresses, otherwise } = drawn;
  return (
    <li>
      <button
        type="button"
        className="flex min-h-7 w-full items-center gap-2 text-left hover:bg-hover"
        onClick={() => select({ what: "interface", id: leg.id })}
      >
        <span aria-hidden className="h-[5px] w-8 flex-none bg-ink" />
        <SegmentChip segment={segment} height={16} />
        <span className="min-w-0 flex-1 truncate text-13">
          {segment.name} {otherwise === "" ? null : <span className="text-ink2">{otherwise}</span>}
        </span>
        <span className="mono flex-none text-13">{addresses || "no address yet"}</span>
      </button>
    </li>
  );
}

/** A leg in a segment that the device has none in, with the address that it would get. */
function AddLeg({ sheet: { device, legs } }: { sheet: GatewaySheet }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const [wanted, setWanted] = useState("");
  const own = new Set(legs.map(({ segment }) => segment.id));
  const open = segmentsInOrder(index).flatMap((segment) => {
    const address = own.has(segment.id) ? null : legAddressIn(index, segment);
    return address === null ? [] : [{ segment, text: formatAddress(address) }];
  });
  const chosen = open.find(({ segment }) => segment.id === wanted) ?? open[0];
  if (chosen === undefined) return null;
  const add = () => {
    const refusal = edit(addLeg({ device: device.id, segment: chosen.segment.id, text: chosen.text }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <p className="flex flex-wrap items-center gap-2 pt-2 pl-10">
      <select
        aria-label="Segment of the new leg"
        className="field h-7 w-40"
        value={chosen.segment.id}
        onChange={(event) => setWanted(event.target.value)}
      >
        {open.map(({ segment }) => (
          <option key={segment.id} value={segment.id}>
            {segment.name}
          </option>
        ))}
      </select>
      <button type="button" className="button !min-h-7" onClick={add}>
        Add a leg, <span className="mono">{chosen.text}</span>
      </button>
    </p>
  );
}
