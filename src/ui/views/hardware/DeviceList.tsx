"use client";

import { formatAddress } from "@/core/address";
import type { Finding, Severity } from "@/core/checks";
import { DEVICE_KIND_WORDS, devicesInOrder, ownAddress, pluggedIn, portCounts } from "@/core/sheets";
import { useUi } from "../../frame/use-ui";
import { SeverityCount } from "../../kit/signs";
import { useIndex, usePlan } from "../../plan-store/use-plan";

const SEVERITIES: readonly Severity[] = ["stop", "warn", "note"];

/** The gear as a list. */
export function DeviceList() {
  const index = useIndex();
  const list = usePlan((state) => state.list);
  const selection = useUi((state) => state.selection);
  const select = useUi((state) => state.select);
  const findingsOf = (ids: ReadonlySet<string>): Finding[] =>
    list.filter((finding) => finding.subjects.some((s) => ids.has(s.id)));
  return (
    <div className="max-h-[36%] flex-none overflow-auto border-t border-ink" tabIndex={-1}>
      <table className="table lead" aria-label="Devices">
        <thead>
          <tr>
            <th scope="col">Device</th>
            <th scope="col">Kind</th>
            <th scope="col">Place</th>
            <th scope="col">Address</th>
            <th scope="col">Uplinks</th>
            <th scope="col" className="right">
              Set
            </th>
            <th scope="col" className="right">
              Open
            </th>
            <th scope="col">Findings</th>
          </tr>
        </thead>
        <tbody>
          {devicesInOrder(index).map((device) => {
            const ports = index.portsOf(device.id);
            const counts = portCounts(index, ports);
            const own = findingsOf(new Set([device.id, ...ports.map((port) => port.id)]));
            const cables = ports.filter((port) => index.linkAt(port.id) !== undefined);
            const chosen = selection?.what === "device" && selection.id === device.id;
            const address = ownAddress(index, device.id);
            return (
              <tr key={device.id} className={chosen ? "selected" : ""}>
                <td>
                  <button
                    type="button"
                    aria-pressed={chosen}
                    className="min-h-6 font-semibold hover:underline"
                    onClick={() => select({ what: "device", id: device.id })}
                  >
                    {device.name}
                  </button>
                </td>
                <td>{DEVICE_KIND_WORDS[device.kind]}</td>
                <td className="text-ink2">{device.place || "–"}</td>
                <td className="mono">{address === null ? "–" : formatAddress(address)}</td>
                <td className="max-w-44 truncate text-ink2">
                  {cables
                    .slice(0, 3)
                    .map((port) => `${port.label} to ${pluggedIn(index, port)}`)
                    .join(", ") || "none"}
                  {cables.length > 3 ? ` and ${cables.length - 3} more` : ""}
                </td>
                <td className="mono right">{counts.set}</td>
                <td className="mono right">{counts.undecided}</td>
                <td>
                  <span className="flex gap-2">
                    {SEVERITIES.map((severity) => {
                      const n = own.filter((f) => f.severity === severity).length;
                      return n === 0 ? null : <SeverityCount key={severity} severity={severity} count={n} />;
                    })}
                  </span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
