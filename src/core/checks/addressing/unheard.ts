import { hears, placeOfHost, placeOfLeg, sourceOf } from "../../places";
import { FABRIC } from "../../fabric";
import { flood } from "../../forwarding";
import { nameOf } from "../../plan";
import { hearScopeRepairs, isUnheard, type Repair, listed } from "../../repairs";
import { check, type Found } from "../check";

interface Unheard {
  readonly scope: string;
  readonly leg: string | null;
}

export const serverNotHeard = check<Unheard>({
  code: "server-not-heard",
  severity: "stop",
  family: "segments",
  title: "The DHCP server does not hear the segment",
  why: "A client asks everybody in its own segment. A server elsewhere hears it only through a relay.",
  reads: ["scope", "interface", "host", "segment", "device"],
  find: (index): Found<Unheard>[] =>
    [...index.plan.scope.values()]
      .filter((scope) => isUnheard(index, scope))
      .map((scope) => ({
        subjects: [
          { kind: "segment", id: scope.segment },
          { kind: "scope", id: scope.id },
        ],
        data: { scope: scope.id, leg: index.plan.segment.get(scope.segment)?.gatewayInterface ?? null },
      })),
  describe: ({ scope }, index) => {
    const own = index.plan.scope.get(scope);
    const server =
      own?.serverDevice !== null && own !== undefined
        ? nameOf(index, "device", own.serverDevice)
        : nameOf(index, "host", own?.serverHost ?? "");
    return (
      `${server} serves ${nameOf(index, "segment", own?.segment ?? "")} ` +
      "and does not hear it: it has no leg there, and nothing relays to it."
    );
  },
  repairs: ({ scope }, index) => hearScopeRepairs(index, scope),
});

interface Silent {
  readonly segment: string;
  readonly leg: string;
  readonly hosts: readonly string[];
}

export const gatewayDoesNotAnswer = check<Silent>({
  code: "gateway-does-not-answer",
  severity: "stop",
  family: "segments",
  title: "Hosts whose gateway does not answer",
  why: "The gateway's port and the hosts are not on one wire: nothing leaves the segment for them.",
  reads: [...FABRIC.reads, "segment", "vlan", "ssid", "line"],
  // A leg in a VLAN is found by where the VLAN stops; here are the legs on ports of their own.
  find: (index): Found<Silent>[] =>
    [...index.plan.segment.values()].flatMap((segment): Found<Silent>[] => {
      const leg = index.gatewayOf(segment);
      const place = leg === undefined || leg.port === null ? null : placeOfLeg(index, leg);
      if (leg === undefined || place === null) return [];
      const heard = flood(index, sourceOf(place));
      const fabric = index.derived(FABRIC);
      const silent = index.hostsIn(segment.id).filter((host) => {
        const at = placeOfHost(index, host);
        return at !== null && hears(fabric, heard, at) === null;
      });
      return silent.length === 0
        ? []
        : [
            {
              subjects: [
                { kind: "segment", id: segment.id },
                { kind: "interface", id: leg.id },
              ],
              data: { segment: segment.id, leg: leg.id, hosts: silent.map((host) => host.id) },
            },
          ];
    }),
  describe: ({ segment, leg, hosts }, index) => {
    const port = index.plan.interface.get(leg)?.port ?? null;
    return (
      listed(hosts.slice(0, 3).map((id) => nameOf(index, "host", id))) +
      `${hosts.length > 3 ? ` and ${hosts.length - 3} more` : ""} ` +
      `in ${nameOf(index, "segment", segment)} get no answer from their gateway: nothing ` +
      `leads to them from ${port === null ? "its port" : nameOf(index, "port", port)}.`
    );
  },
  repairs: ({ leg }, index): Repair[] => {
    const port = index.plan.port.get(index.plan.interface.get(leg)?.port ?? "");
    return port === undefined || port.enabled || index.linkAt(port.id) === undefined
      ? []
      : [
          {
            label: `Switch ${nameOf(index, "port", port.id)} on`,
            planner: "switch-on",
            args: { port: port.id },
            edit: (edits) => edits.patch("port", port.id, { enabled: true }),
          },
        ];
  },
});
