"use client";

import { useState } from "react";
import { counted } from "@/core/repairs";
import type { PlanIndex, Port } from "@/core/plan";
import { HOST_KIND_WORDS, mainDomain, portsByRule, type PortRule } from "@/core/planners";
import { runsByDevice } from "@/core/sheets";
import { useIndex } from "../../plan-store/use-plan";
import { PaintBar } from "./PaintBar";
import { putInto } from "@/core/kernel";

interface Named {
  readonly key: string;
  readonly words: string;
  readonly rule: PortRule;
}
interface Picked {
  readonly domain: string | null;
  readonly ports: readonly Port[];
}

/** The rules that pick something on this site: by what is plugged in, by segment, or by what is left. */
function rulesOf(index: PlanIndex): Named[] {
  const kinds = new Set(
    [...index.plan.host.values()].filter((host) => host.attachment.at === "port").map((host) => host.kind),
  );
  return [
    { key: "unused", words: "every unused port", rule: { by: "unused" } },
    { key: "undecided", words: "every port still to decide", rule: { by: "undecided" } },
    { key: "accessPoints", words: "the ports of access points", rule: { by: "accessPoints" } },
    { key: "uplinks", words: "the ports between gear", rule: { by: "uplinks" } },
    ...[...kinds].map((kind): Named => ({
      key: `kind ${kind}`,
      words: `ports with ${HOST_KIND_WORDS[kind]}`,
      rule: { by: "hostKind", kind },
    })),
    ...[...index.plan.segment.values()].map((segment): Named => ({
      key: segment.id,
      words: `ports of devices in ${segment.name}`,
      rule: { by: "segment", segment: segment.id },
    })),
  ];
}

/** Ports of one layer-2 domain only: a number means another VLAN in another. */
function pickedBy(index: PlanIndex, rule: PortRule): Picked[] {
  const byDomain = new Map<string | null, Port[]>();
  for (const port of portsByRule(index, rule)) {
    const domain = index.plan.device.get(port.device)?.domain ?? null;
    putInto(byDomain, domain, port);
  }
  return [...byDomain].map(([domain, ports]) => ({ domain, ports }));
}

/** Painting on many switches at once, the ports picked by a rule. */
// eslint-disable-next-line complexity -- each part of the rule may be open
export function RulePaint() {
  const index = useIndex();
  const rules = rulesOf(index);
  const [key, setKey] = useState("unused");
  const [at, setDomain] = useState<string | null>(mainDomain(index.plan));
  const chosen = rules.find((named) => named.key === key) ?? rules[0];
  const picked = chosen === undefined ? [] : pickedBy(index, chosen.rule);
  const here = picked.find(({ domain }) => domain === at) ?? picked[0];
  const devices = new Set(here?.ports.map((port) => port.device)).size;
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 px-4 py-3 text-13">
        <label className="flex items-center gap-2">
          Take
          <select className="field" value={chosen?.key} onChange={(event) => setKey(event.target.value)}>
            {rules.map((named) => (
              <option key={named.key} value={named.key}>
                {named.words}
              </option>
            ))}
          </select>
        </label>
        {picked.length < 2 ? null : (
          <label className="flex items-center gap-2">
            in
            <select
              className="field"
              value={here?.domain ?? ""}
              onChange={(event) => setDomain(event.target.value === "" ? null : event.target.value)}
            >
              {picked.map(({ domain }) => (
                <option key={domain ?? ""} value={domain ?? ""}>
                  {index.plan.domain.get(domain ?? "")?.name ?? "no domain"}
                </option>
              ))}
            </select>
          </label>
        )}
        <span className="text-ink2">
          {here === undefined
            ? "no port answers to that"
            : `${counted(here.ports.length, "port", "ports")} on ${counted(devices, "device", "devices")}`}
        </span>
      </div>
      <div className="min-h-0 flex-1 overflow-auto" tabIndex={-1}>
        {here === undefined ? (
          <p className="max-w-[60ch] px-4 text-15">
            No port of the site answers to that rule. Choose another one above.
          </p>
        ) : (
          <table className="table still" aria-label="Ports the rule picks">
            <thead>
              <tr>
                <th scope="col">Device</th>
                <th scope="col" className="right">
                  Count
                </th>
                <th scope="col" className="w-full">
                  Ports (case)
                </th>
              </tr>
            </thead>
            <tbody>
              {[...new Set(here.ports.map((port) => port.device))].map((device) => {
                const own = here.ports.filter((port) => port.device === device);
                return (
                  <tr key={device}>
                    <td className="font-semibold">{index.plan.device.get(device)?.name}</td>
                    <td className="mono right">{own.length}</td>
                    <td className="mono">{runsByDevice(index, own)}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
      </div>
      {here === undefined ? null : (
        <PaintBar
          key={`${chosen?.key ?? ""} ${here.domain ?? ""}`}
          domain={here.domain}
          ports={here.ports}
          run={devices === 1 ? runsByDevice(index, here.ports) : counted(devices, "device", "devices")}
          preview
        />
      )}
    </>
  );
}
