"use client";

import {
  addSsid,
  chooseGateway,
  editSegment,
  removeSegments,
  removeSsids,
  setSegment,
} from "@/core/commands";
import { Popover } from "radix-ui";
import { useState } from "react";
import { toast } from "sonner";
import { formatPrefix, usableRange } from "@/core/address";
import { byNaturalText } from "@/core/kernel";
import { TAPE_COLOURS, type Segment } from "@/core/plan";
import { SEGMENT_COLUMNS, type SegmentColumn } from "@/core/planners";
import { forwardsPackets } from "@/core/routing";
import { poolsWithCounts, segmentCellText, segmentFigures, shortIn } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { SegmentChip, tapeWords } from "../../tape/Chip";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { Fact, MarginHead, Section } from "../parts";
import { Options, ScopeFields } from "./ScopeFields";

const LABELS: Readonly<Record<SegmentColumn, string>> = {
  mark: "Mark",
  vid: "VLAN ID",
  name: "Name",
  zone: "Zone",
  prefix: "Subnet",
  gateway: "Gateway",
  pool: "Pool",
  lease: "Lease",
  dns: "DNS",
  planned: "Planned",
};

export function SegmentMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const segment = index.plan.segment.get(id);
  if (segment === undefined) return null;
  const figures = segmentFigures(index, segment);
  const prefix = segment.prefixes4[0];
  const usable = prefix === undefined ? null : usableRange(prefix);
  const scopes = index.scopesOf(id);
  const ids = new Set([id, ...scopes.map((scope) => scope.id)]);
  const remove = () => {
    const refusal = edit(removeSegments({ segments: [id] }));
    if (refusal !== null) toast.error(refusal);
    else select(null);
  };
  return (
    <>
      <MarginHead kick="Selected segment">
        <SegmentChip segment={segment} />
        {segment.name}
      </MarginHead>
      <dl className="facts">
        <Fact name="Tape">
          <TapeChoice segment={segment} />
        </Fact>
        {prefix === undefined ? null : (
          <Fact name="Subnet">
            <span className="mono">{formatPrefix(prefix)}</span>
          </Fact>
        )}
        {usable === null ? null : (
          <Fact name="Usable">
            <span className="mono">{shortIn(segment, usable.first)}</span> to{" "}
            <span className="mono">{shortIn(segment, usable.last)}</span>, {figures.usable} addresses
          </Fact>
        )}
        {poolsWithCounts(index, segment).map((pool) => (
          <Fact key={pool.text} name="Pool">
            <span className="mono">{pool.text}</span>, count {pool.count}
          </Fact>
        ))}
        <Fact name="Room">
          {figures.usable} − {figures.gateways} gate − {figures.planned} planned ={" "}
          <b className="font-semibold">{figures.room}</b>
        </Fact>
      </dl>
      <FindingsSection ids={ids} />
      <Section title="Change">
        {SEGMENT_COLUMNS.map((column) => (
          <TextField
            key={column}
            label={LABELS[column]}
            value={segmentCellText(index, segment, column)}
            mono={!["name", "zone"].includes(column)}
            offers={column === "zone" ? [...index.plan.zone.values()].map((zone) => zone.name) : []}
            write={(text) => edit(editSegment({ segment: id, column, text }))}
          />
        ))}
        <GatewayChoice segment={segment} />
        <ScopeFields segment={segment} />
        <label className="flex min-h-7 items-center gap-2 px-4 text-13">
          <input
            type="checkbox"
            checked={segment.management}
            onChange={(event) =>
              edit(setSegment({ segment: id, fields: { management: event.target.checked } }))
            }
          />
          Management: the gear’s own addresses
        </label>
      </Section>
      <div className="section px-4 pt-2">
        <button type="button" className="button" onClick={() => select({ what: "leases", id })}>
          Size the pool and the lease
        </button>
      </div>
      <Options segment={segment} />
      <Wireless segment={segment} />
      <div className="section px-4 pt-3">
        <button type="button" className="button danger" onClick={remove}>
          Remove the segment
        </button>
      </div>
      <HistorySection about={id} />
    </>
  );
}

/** Which device is the segment's gateway; one without a leg there gets one. */
function GatewayChoice({ segment }: { segment: Segment }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const choose = (device: string) => {
    const refusal = edit(chooseGateway({ segment: segment.id, device: device === "" ? null : device }));
    if (refusal !== null) toast.error(refusal);
  };
  return (
    <Choose
      label="Gateway on"
      value={index.gatewayOf(segment)?.device ?? ""}
      choices={[
        ["", "no device"],
        ...[...index.plan.device.values()]
          .filter(forwardsPackets)
          .sort((a, b) => byNaturalText(a.name, b.name))
          .map(({ id, name }): [string, string] => [id, name]),
      ]}
      onChoose={choose}
    />
  );
}

function TapeChoice({ segment }: { segment: Segment }) {
  const edit = usePlan((state) => state.edit);
  const set = (tape: Segment["tape"]) => {
    edit(setSegment({ segment: segment.id, fields: { tape } }));
  };
  const swatch = "h-6 w-8 rounded border border-rule aria-pressed:outline-2 aria-pressed:outline-act";
  return (
    <Popover.Root>
      <Popover.Trigger className="underline decoration-rule underline-offset-2">
        {tapeWords(segment.tape)}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          aria-label="Tape"
          className="z-40 w-64 rounded border border-ink bg-panel p-3 text-13"
        >
          <p className="mb-1 text-ink2">Base</p>
          <div className="mb-2 flex flex-wrap gap-[6px]">
            {TAPE_COLOURS.map((colour) => (
              <button
                key={colour}
                type="button"
                aria-pressed={segment.tape.base === colour}
                aria-label={colour}
                title={colour}
                className={swatch}
                style={{ background: `var(--tape-${colour})` }}
                onClick={() => set({ ...segment.tape, base: colour })}
              />
            ))}
          </div>
          <p className="mb-1 text-ink2">Tracer</p>
          <div className="flex flex-wrap gap-[6px]">
            <button
              type="button"
              aria-pressed={segment.tape.tracer === null}
              className="button"
              onClick={() => set({ ...segment.tape, tracer: null })}
            >
              none
            </button>
            {TAPE_COLOURS.filter((c) => c !== segment.tape.base).map((colour) => (
              <button
                key={colour}
                type="button"
                aria-pressed={segment.tape.tracer === colour}
                aria-label={`traced ${colour}`}
                title={colour}
                className={swatch}
                style={{ background: `var(--tape-${colour})` }}
                onClick={() => set({ ...segment.tape, tracer: colour })}
              />
            ))}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Wireless({ segment }: { segment: Segment }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const [count, setCount] = useState(0);
  const ssids = index.groups("ssidsBySegment").get(segment.id) ?? [];
  return (
    <Section title="Wireless names">
      <ul className="px-4 text-13">
        {ssids.map((ssid) => (
          <li key={ssid.id} className="flex min-h-7 items-center">
            {ssid.name}
            <button
              type="button"
              className="button ml-auto"
              onClick={() => edit(removeSsids({ ssids: [ssid.id] }))}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <TextField
        key={count}
        label="Add"
        value=""
        placeholder="a wireless name"
        write={(text) => {
          const refusal = edit(addSsid({ segment: segment.id, name: text }));
          if (refusal === null) setCount(count + 1);
          return refusal;
        }}
      />
    </Section>
  );
}
