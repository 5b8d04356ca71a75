"use client";

import { runsWords } from "@/core/kernel";
import { type Device, nameOf } from "@/core/plan";
import { setProtectedVids } from "@/core/planners";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { Section } from "../parts";

/**
 * What a device does against false DHCP servers and false addresses, and whether its own traffic finds out
 * of its segment.
 */
export function ProtectionFields({ device }: { device: Device }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const { snooping, arpInspection, option82, bound } = device.protections;
  const write = (field: "snooping" | "arpInspection", words: string) => (text: string) =>
    edit(
      {
        planner: "set-protection",
        summary: `${device.name}: ${words} ${text === "" ? "nowhere" : text}`,
        args: { device: device.id, field, text },
      },
      (bench) => setProtectedVids(bench, device.id, field, text),
    );
  const patch = (summary: string, fields: Partial<Device>) => {
    edit({ planner: "set-protection", summary, args: { device: device.id } }, ({ draft }) =>
      draft.patch("device", device.id, fields),
    );
  };
  const tick = "flex min-h-7 items-center gap-2 px-4 text-13";
  const drop = (host: string) =>
    patch(`${device.name}: no binding for ${nameOf(index, "host", host)}`, {
      protections: { ...device.protections, bound: bound.filter((one) => one !== host) },
    });
  return (
    <Section title="Against false servers and addresses">
      <TextField
        label="Snoops in VLANs"
        mono
        value={runsWords(snooping, String)}
        placeholder="20, 30 to 35"
        write={write("snooping", "snoops in")}
      />
      <TextField
        label="Inspects ARP in"
        mono
        value={runsWords(arpInspection, String)}
        placeholder="20, 30 to 35"
        write={write("arpInspection", "inspects ARP in")}
      />
      <label className={tick}>
        <input
          type="checkbox"
          checked={option82}
          onChange={(event) =>
            patch(`${device.name}: ${event.target.checked ? "adds" : "adds no"} option 82`, {
              protections: { ...device.protections, option82: event.target.checked },
            })
          }
        />
        adds option 82 to questions
      </label>
      <label className={tick}>
        <input
          type="checkbox"
          checked={device.defaultRoute === "asSegment"}
          onChange={(event) =>
            patch(`${device.name}: ${event.target.checked ? "a" : "no"} default gateway`, {
              defaultRoute: event.target.checked ? "asSegment" : "none",
            })
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
