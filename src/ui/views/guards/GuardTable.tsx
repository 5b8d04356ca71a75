"use client";

import type { GuardFlag } from "@/core/planners";
import { runsWords } from "@/core/kernel";
import type { Device } from "@/core/plan";
import { useUi } from "../../frame/use-ui";
import { useIndex } from "../../plan-store/use-plan";

const ADMINS = { local: "local", radius: "RADIUS", tacacs: "TACACS+" } as const;
const TREES = { none: "none", rapid: "rapid", multiple: "multiple", perVlan: "one per VLAN" } as const;

/** Short heads, so that all of it stands side by side, and what they mean. */
const HEADS: readonly (readonly [head: string, title: string])[] = [
  ["tree", "spanning tree"],
  ["priority", "bridge priority"],
  ["snoops in", "VLANs with DHCP snooping"],
  ["trusted", "ports that answers of DHCP servers may come in by"],
  ["ARP in", "VLANs with ARP inspection"],
  ["RAs in", "VLANs in which router advertisements are guarded"],
  ["edge", "edge ports"],
  ["BPDU", "ports with BPDU guard"],
  ["802.1X", "ports that ask for a sign-in"],
  ["source", "ports that check source addresses"],
  ["apart", "isolated ports"],
  ["admins", "how administrators sign in"],
];

/** Each device's guards side by side; the margin changes them. */
export function GuardTable({ devices }: { devices: readonly Device[] }) {
  const index = useIndex();
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const count = (device: Device, guard: GuardFlag) =>
    index.portsOf(device.id).filter((port) => port.guards[guard]).length;
  const vids = (list: readonly number[]) =>
    list.length === 0 ? <span className="text-ink2">none</span> : runsWords(list, String);
  if (devices.length === 0)
    return (
      <p className="max-w-[60ch] p-4 text-15">
        Here stand each switch’s guards against loops, false servers and strangers. Add the switches on
        Hardware first.
      </p>
    );
  return (
    <div className="min-h-0 flex-1 overflow-auto pb-6" tabIndex={-1}>
      <table className="table" aria-label="Guards of each device">
        <thead>
          <tr>
            <th scope="col" className="!pl-4">
              device
            </th>
            {HEADS.map(([head, title]) => (
              <th key={head} scope="col" title={title}>
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {devices.map((device) => (
            <tr
              key={device.id}
              className={selection?.what === "device" && selection.id === device.id ? "bg-act-wash" : ""}
            >
              <td className="!pl-4">
                <button
                  type="button"
                  className="hover:underline"
                  onClick={() => select({ what: "device", id: device.id })}
                >
                  {device.name}
                </button>
              </td>
              <td>{TREES[device.tree.kind]}</td>
              <td className="mono">{device.tree.kind === "none" ? "" : device.tree.priority}</td>
              <td className="mono">{vids(device.protections.snooping)}</td>
              <td className="mono">
                {index
                  .portsOf(device.id)
                  .filter((port) => port.guards.dhcpTrust)
                  .map((port) => port.label)
                  .join(", ")}
              </td>
              <td className="mono">{vids(device.protections.arpInspection)}</td>
              <td className="mono">{vids(device.protections.routerGuard)}</td>
              <td className="mono">{count(device, "edge")}</td>
              <td className="mono">{count(device, "bpduGuard")}</td>
              <td className="mono">{count(device, "signIn")}</td>
              <td className="mono">{count(device, "sourceCheck")}</td>
              <td className="mono">{count(device, "isolated")}</td>
              <td>{ADMINS[device.adminSignIn.by]}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
