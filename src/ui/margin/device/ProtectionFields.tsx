"use client";

import { setDevice, setProtectedVlans, setProtections } from "@/core/commands";
import { runsWords } from "@/core/kernel";
import { type Device, nameOf } from "@/core/plan";
import type { ProtectedVids } from "@/core/planners";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

const IN_VLANS: readonly (readonly [ProtectedVids, string])[] = [
  ["snooping", "Snoops in VLANs"],
  ["arpInspection", "Inspects ARP in"],
  ["routerGuard", "Guards RAs in"],
  ["dhcp6Guard", "Guards DHCPv6 in"],
];

/**
 * What a device does against false DHCP servers and false addresses, and whether its own traffic finds out
 * of its segment.
 */
export function ProtectionFields({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const { option82, bound, keepsBindings } = device.protections;
  const set = (fields: Parameters<typeof setProtections>[0]["fields"]) => {
    edit(setProtections({ device: device.id, fields }));
  };
  const tick = "flex min-h-7 items-center gap-2 px-4 text-13";
  const drop = (host: string) => set({ bound: bound.filter((other) => other !== host) });
  return (
    <Section title="Against false servers and addresses">
      {IN_VLANS.map(([field, label]) => (
        <TextField
          key={field}
          label={label}
          mono
          value={runsWords(device.protections[field], String)}
          placeholder="20, 30 to 35"
          write={(text) => edit(setProtectedVlans({ device: device.id, field, text }))}
        />
      ))}
      <label className={tick}>
        <input
          type="checkbox"
          checked={option82}
          onChange={(event) => set({ option82: event.target.checked })}
        />
        adds option 82 to questions
      </label>
      <label className={tick}>
        <input
          type="checkbox"
          checked={keepsBindings}
          onChange={(event) => set({ keepsBindings: event.target.checked })}
        />
        keeps learnt bindings over a restart
      </label>
      <label className={tick}>
        <input
          type="checkbox"
          checked={device.defaultRoute === "asSegment"}
          onChange={(event) =>
            edit(
              setDevice({
                device: device.id,
                fields: { defaultRoute: event.target.checked ? "asSegment" : "none" },
              }),
            )
          }
        />
        has a default gateway for its own traffic
      </label>
      {bound.length === 0 ? null : (
        <ul aria-label="Bindings entered by hand" className="px-4 pt-1 text-13">
          {bound.map((host) => (
            <li key={host} className="flex items-center gap-2 border-t border-hair py-1">
              bound: {nameOf(index, "host", host)}
              <button type="button" className="button ml-auto" onClick={() => drop(host)}>
                Take off
              </button>
            </li>
          ))}
        </ul>
      )}
    </Section>
  );
}
