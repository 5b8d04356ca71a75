"use client";

import { addOption, editSegmentText, removeOption, setSegment, setServer } from "@/core/commands";
import { useState } from "react";
import { PURPOSES, TRAFFIC_CLASSES, type Scope, type Segment } from "@/core/plan";
import { segmentFieldText, type SegmentField } from "@/core/planners";
import { OPTION_KINDS } from "@/core/dhcp";
import { classText } from "@/core/policy";
import { PURPOSE_WORDS } from "@/core/survey";
import { Choose } from "../../kit/Choose";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

type Row = readonly [SegmentField, string, string];
const SUBNET: readonly Row[] = [
  ["growth", "Growth %", "25"],
  ["prefix6", "IPv6 subnet", "fd24:5a10:3c01:20::/64"],
];
const SERVICES: readonly Row[] = [
  ["exclusions", "Excluded", ".60-.69"],
  ["time", "Time servers", "10.24.60.10"],
  ["domainName", "Domain", "the site’s"],
  ["relay", "Relay to", "no relay"],
];

/** One text field of a segment beside the table's columns. */
export function SegmentText({ segment, row: [field, label, hint] }: { segment: Segment; row: Row }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  return (
    <TextField
      label={label}
      value={segmentFieldText(index, segment, field)}
      placeholder={hint}
      mono
      write={(text) => edit(editSegmentText({ segment: segment.id, field, text }))}
    />
  );
}

/** What the segment is for, its IPv6 side, and what its scope hands out beside the address. */
export function ScopeFields({ segment }: { segment: Segment }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const scope = index.scopesOf(segment.id).find((scope) => scope.family === 4);
  const set = (fields: Partial<Segment>) => {
    edit(setSegment({ segment: segment.id, fields }));
  };
  return (
    <>
      <Choose
        label="Purpose"
        value={segment.purpose}
        choices={PURPOSES.map((purpose) => [purpose, PURPOSE_WORDS[purpose]] as const)}
        onChoose={(purpose) => set({ purpose })}
      />
      {SUBNET.map((row) => (
        <SegmentText key={row[0]} segment={segment} row={row} />
      ))}
      <Choose
        label="Advertised"
        value={segment.advertise}
        choices={[
          ["none", "nothing"],
          ["slaac", "clients make their own address (SLAAC)"],
          ["stateless", "their own address, the rest by DHCPv6"],
          ["stateful", "a server gives it (DHCPv6)"],
        ]}
        onChoose={(advertise) => set({ advertise })}
      />
      <Choose
        label="Class"
        value={segment.trafficClass}
        choices={TRAFFIC_CLASSES.map((name) => [name, classText(name)] as const)}
        onChoose={(trafficClass) => set({ trafficClass })}
      />
      {SERVICES.map((row) => (
        <SegmentText key={row[0]} segment={segment} row={row} />
      ))}
      {scope === undefined ? null : <ServerChoice scope={scope} />}
    </>
  );
}

function ServerChoice({ scope }: { scope: Scope }) {
  const { plan } = useIndex();
  const edit = usePlan((state) => state.edit);
  const host = scope.serverHost === null ? "" : `h ${scope.serverHost}`;
  const value = scope.serverDevice === null ? host : `d ${scope.serverDevice}`;
  const servers: (readonly [string, string])[] = [
    ...(value === "" ? [["", "nobody"] as const] : []),
    ...[...plan.device.values()]
      .filter(
        (device) => ["gateway", "server", "switch"].includes(device.kind) && device.bridging !== "plain",
      )
      .map((device) => [`d ${device.id}`, device.name] as const),
    ...[...plan.host.values()]
      .filter((host) => host.kind === "server")
      .map((host) => [`h ${host.id}`, host.name] as const),
  ];
  return (
    <Choose
      label="Served by"
      value={value}
      choices={servers}
      onChoose={(chosen) => {
        const id = chosen.slice(2);
        if (id !== "")
          edit(
            setServer({ scope: scope.id, server: chosen.startsWith("d") ? { device: id } : { host: id } }),
          );
      }}
    />
  );
}

/** The options that the scope hands out: standard ones by name, others by code. */
export function Options({ segment }: { segment: Segment }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const [added, setAdded] = useState(0);
  const scope = index.scopesOf(segment.id).find((scope) => scope.family === 4);
  if (scope === undefined) return null;
  return (
    <Section title="Options handed out">
      <ul className="px-4 text-13">
        {scope.options.map((option) => (
          <li
            key={option.code}
            className="flex min-h-7 items-center gap-2 border-b border-hair last:border-b-0"
          >
            <span className="mono w-8 text-right text-ink2">{option.code}</span>
            <span>
              {option.name} <b className="mono font-semibold">{option.value}</b>
            </span>
            <button
              type="button"
              className="button ml-auto"
              aria-label={`Remove option ${option.code}`}
              onClick={() => edit(removeOption({ scope: scope.id, code: option.code }))}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <TextField
        key={added}
        label="Add"
        mono
        value=""
        placeholder="42 10.24.60.10"
        offers={OPTION_KINDS.map((kind) => `${kind.code} ${kind.name}`)}
        write={(text) => {
          const refusal = edit(addOption({ segment: segment.id, text }));
          if (refusal === null) setAdded(added + 1);
          return refusal;
        }}
      />
    </Section>
  );
}
