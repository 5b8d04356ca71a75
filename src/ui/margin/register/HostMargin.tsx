"use client";

import {
  editHost,
  editHostField,
  editOwnNetwork,
  giveAddress,
  removeHosts,
  setChangesMac,
} from "@/core/commands";
import { useState } from "react";
import { toast } from "sonner";
import { formatAddress, isLocallyAdministered } from "@/core/address";
import {
  HOST_KIND_WORDS,
  MANNER_WORDS,
  nextFreeFor,
  OWN_FIELDS,
  ownFieldText,
  type HostColumn,
  type OwnField,
} from "@/core/planners";
import { hostCellText, poolsWithCounts, shortIn } from "@/core/sheets";
import { useGoTo } from "../../frame/go-to";
import { useUi } from "../../frame/use-ui";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { SegmentChip } from "../../tape/Chip";
import { FindingsSection } from "../findings/FindingsSection";
import { HistorySection } from "../HistorySection";
import { Fact, MarginHead, Section } from "../parts";
import type { Host } from "@/core/plan";

const LABELS: Readonly<Record<HostColumn, string>> = {
  address: "Address",
  name: "Name",
  kind: "Kind",
  segment: "Segment",
  how: "How",
  mac: "MAC",
  port: "Plugged into",
  place: "Place",
};
const MORE = [
  ["tag", "Sends tag", "none; a phone its voice VLAN"],
  ["ipv6", "IPv6", "fd00:24:20::10"],
  ["notes", "Notes", ""],
] as const;
const OWN: Readonly<Record<OwnField, readonly [label: string, hint: string]>> = {
  length4: ["Own mask", "as its segment; /25"],
  gateway4: ["Own gateway", "as its segment"],
  length6: ["Own IPv6 length", "as its segment; /64"],
  gateway6: ["Own IPv6 gateway", "as its segment"],
  dns: ["Own DNS", "as its segment"],
};
const ORDER: readonly HostColumn[] = ["name", "kind", "segment", "how", "address", "mac", "port", "place"];

function moreText(host: Host, field: (typeof MORE)[number][0]): string {
  if (field === "tag") return String(host.tag ?? "");
  if (field === "notes") return host.notes;
  return host.ipv6 === null ? "" : formatAddress(host.ipv6);
}

// eslint-disable-next-line max-lines-per-function, complexity -- the fields of one device in their order
export function HostMargin({ id }: { id: string }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const setUi = useUi((state) => state.set);
  const goTo = useGoTo();
  const [written, setWritten] = useState(0);
  const host = index.plan.host.get(id);
  if (host === undefined) return null;
  const segment = host.segment === null ? undefined : index.plan.segment.get(host.segment);
  const free =
    segment === undefined
      ? null
      : { typed: nextFreeFor(index, segment, "typed"), reserved: nextFreeFor(index, segment, "reserved") };
  const write = (column: HostColumn, text: string) => edit(editHost({ host: id, column, text }));
  const give = (manner: "typed" | "reserved", address: string) => {
    const refusal = edit(giveAddress({ host: id, address, manner }));
    if (refusal !== null) toast.error(refusal);
    setWritten(written + 1);
  };
  const offers = (column: HostColumn): readonly string[] => {
    if (column === "kind") return Object.values(HOST_KIND_WORDS);
    if (column === "how") return Object.values(MANNER_WORDS);
    return column === "segment" ? [...index.plan.segment.values()].map((s) => s.name) : [];
  };
  const remove = () => {
    edit(removeHosts({ hosts: [id] }));
    select(null);
  };
  const probeFrom = () => {
    setUi({
      probe: { from: { at: "host", host: id }, as: { as: "client" }, family: 4, goal: { to: "address" } },
    });
    goTo.view("probe");
  };
  return (
    <>
      <MarginHead kick="Selected device">
        {segment === undefined ? null : <SegmentChip segment={segment} />}
        {host.name}
      </MarginHead>
      <dl className="facts">
        <Fact name="Address">
          <span className="mono">{host.ipv4 === null ? "none fixed" : formatAddress(host.ipv4)}</span>,{" "}
          {MANNER_WORDS[host.manner]}
        </Fact>
        {segment === undefined
          ? null
          : poolsWithCounts(index, segment).map((pool) => (
              <Fact key={pool.text} name="Pool">
                <span className="mono">{pool.text}</span>, count {pool.count}
              </Fact>
            ))}
        {host.mac === null || !isLocallyAdministered(host.mac) ? null : (
          <Fact name="MAC">chosen locally, not by a maker</Fact>
        )}
        {host.surveyed === null ? null : (
          <Fact name="Surveyed as">
            {host.surveyed.what} in {index.plan.room.get(host.surveyed.room)?.name ?? "a removed room"}
          </Fact>
        )}
        {host.tag === null ? null : <Fact name="Sends tag">{host.tag}</Fact>}
      </dl>
      {free === null || segment === undefined ? null : (
        <div className="flex flex-wrap items-center gap-[6px] px-4 pb-2 text-13">
          <span className="text-ink2">Next free</span>
          {(["typed", "reserved"] as const).map((manner) => {
            const address = free[manner];
            return address === null ? null : (
              <button
                key={manner}
                type="button"
                className="button"
                onClick={() => give(manner, formatAddress(address))}
              >
                {MANNER_WORDS[manner]} <b className="mono">{shortIn(segment, address)}</b>
              </button>
            );
          })}
        </div>
      )}
      <FindingsSection ids={new Set([id])} />
      <Section title="Change">
        {ORDER.map((column) => (
          <TextField
            key={`${column} ${written}`}
            label={LABELS[column]}
            value={hostCellText(index, host, column)}
            mono={column === "address" || column === "mac"}
            offers={offers(column)}
            write={(text) => write(column, text)}
          />
        ))}
        {MORE.map(([field, label, hint]) => (
          <TextField
            key={field}
            label={label}
            value={moreText(host, field)}
            placeholder={hint}
            mono={field !== "notes"}
            write={(text) => edit(editHostField({ host: id, field, text }))}
          />
        ))}
        <label className="flex min-h-7 items-center gap-2 px-4 text-13">
          <input
            type="checkbox"
            checked={host.changesMac}
            onChange={(event) => edit(setChangesMac({ host: id, on: event.target.checked }))}
          />
          changes its MAC address by itself
        </label>
      </Section>
      {host.manner !== "typed" && OWN_FIELDS.every((field) => ownFieldText(host, field) === "") ? null : (
        <Section title="Entered on it, where it differs">
          {OWN_FIELDS.map((field) => (
            <TextField
              key={field}
              label={OWN[field][0]}
              value={ownFieldText(host, field)}
              placeholder={OWN[field][1]}
              mono
              write={(text) => edit(editOwnNetwork({ host: id, field, text }))}
            />
          ))}
        </Section>
      )}
      <div className="section flex gap-[6px] px-4 pt-3">
        <button type="button" className="button" onClick={probeFrom}>
          Probe from here
        </button>
        <button type="button" className="button danger" onClick={remove}>
          Remove
        </button>
      </div>
      <HistorySection about={id} />
    </>
  );
}
