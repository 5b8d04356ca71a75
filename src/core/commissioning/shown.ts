import { formatAddress, formatRange } from "../address";
import { baselineOn } from "../device-sheet";
import { FABRIC } from "../fabric";
import { grouped } from "../kernel";
import { nameOf, type PlanIndex, type Port } from "../plan";
import { formatLease } from "../planners";
import { offeredRanges } from "../dhcp";
import { addressFact, baselineFact, rolesOf, portsText, scopeFact, vlanFact, wirelessFact } from "./facts";
import type { Fact, Line } from "./fact";
import { gearLines } from "./gear-facts";
import { ipv6Lines } from "./ipv6";
import type { SiteTest } from "./tests";

const vidsText = (list: readonly number[]): string =>
  list.length === 0 ? "none" : [...list].sort((a, b) => a - b).join(" ");
/** What a port is a member of, in words. */
export const memberText = ({
  untagged,
  tagged,
  pvid,
  enabled,
}: Pick<Port, "untagged" | "tagged" | "pvid" | "enabled">): string =>
  enabled ? `untagged ${vidsText(untagged)}, tagged ${vidsText(tagged)}, PVID ${pvid ?? "none"}` : "off";

/** Where settings are looked at. */
type On = NonNullable<Fact["shownOn"]>;

/** What of a device's ports shows facts: a line for each port between gear and each role. */
function portLines(index: PlanIndex, device: string, wanted: ReadonlySet<string>): Line[] {
  const fabric = index.derived(FABRIC);
  const between = index.portsOf(device).flatMap(({ id }): Line[] => {
    const port = fabric.ports[fabric.portNumber.get(id) ?? -1];
    const shows = [...(port?.untagged ?? []), ...(port?.tagged ?? [])].some((vid) =>
      wanted.has(vlanFact(id, vid)),
    );
    return port === undefined || !shows ? [] : [[nameOf(index, "port", id), memberText(port)]];
  });
  const roles = rolesOf(index).flatMap(({ id, ports }): Line[] => {
    const [first] = ports;
    return first === undefined || !wanted.has(id) ? [] : [[portsText(ports), memberText(first)]];
  });
  const names = [...index.plan.ssid.values()].flatMap((ssid): Line[] => {
    if (!wanted.has(wirelessFact(ssid.id, device))) return [];
    const segment = index.plan.segment.get(ssid.segment);
    const vid = segment === undefined ? null : index.vidOf(segment);
    return [[ssid.name, vid === null ? (segment?.name ?? "") : `VLAN ${vid}`]];
  });
  return [...between, ...roles, ...names];
}

/** What of a server's scopes shows facts. */
const scopeLines = (index: PlanIndex, wanted: ReadonlySet<string>): Line[] =>
  [...index.plan.scope.values()].flatMap((scope): Line[] => {
    if (!wanted.has(scopeFact(scope.id))) return [];
    const pool = offeredRanges(scope).map(formatRange).join(", ");
    const value = `${pool === "" ? "no pool" : pool}; ${formatLease(scope.leaseSeconds)}`;
    return [[`DHCP for ${nameOf(index, "segment", scope.segment)}`, value]];
  });

/** What of the settings of a device or server shows facts. */
function linesOf(index: PlanIndex, on: On, facts: readonly Fact[]): Line[] {
  const wanted = new Set(facts.map(({ id }) => id));
  const ports = "device" in on ? portLines(index, on.device, wanted) : [];
  const gear = "device" in on ? gearLines(index, on.device, wanted) : [];
  const device = "device" in on ? index.plan.device.get(on.device) : undefined;
  const six = "device" in on ? ipv6Lines(index, on.device, wanted) : [];
  const baseline =
    device === undefined || !wanted.has(baselineFact(device.id))
      ? []
      : baselineOn(index, device).map(({ setting, value }): Line => [setting, value]);
  const host = "host" in on ? index.plan.host.get(on.host) : undefined;
  const address = host !== undefined && wanted.has(addressFact(host.id)) ? host.ipv4 : null;
  const own: Line[] = address === null ? [] : [["Its own address", formatAddress(address)]];
  return [...ports, ...gear, ...six, ...baseline, ...own, ...scopeLines(index, wanted)];
}

/** What nothing shows that a laptop reads is looked up on the device itself: its own pages. */
export function lookedUp(index: PlanIndex, facts: readonly Fact[]): SiteTest[] {
  const own = facts.filter(({ shownOn }) => shownOn !== null);
  const on = grouped(own, ({ shownOn }) => JSON.stringify(shownOn));
  return [...on.values()].flatMap((about): SiteTest[] => {
    const at = about[0]?.shownOn ?? null;
    if (at === null) return [];
    const [name, place] =
      "device" in at
        ? [nameOf(index, "device", at.device), index.plan.device.get(at.device)?.place ?? ""]
        : [nameOf(index, "host", at.host), index.plan.host.get(at.host)?.place ?? ""];
    const lines = linesOf(index, at, about);
    const id = "device" in at ? `shown device ${at.device}` : `shown host ${at.host}`;
    const shown = lines.length > 0 ? lines : about.map(({ words }): Line => [words, "as planned"]);
    return [
      {
        id,
        place,
        at: name,
        does: `Look on ${name} itself.`,
        question: null,
        pulled: null,
        expected: { is: "shown", lines: shown },
        proves: about.map((fact) => fact.id),
      },
    ];
  });
}
