import { byNaturalText, putInto } from "../kernel";
import { nameOf, type PlanIndex } from "../plan";
import { counted, listed } from "../repairs";
import { failureKey, failureName, type Failure } from "./kinds";
import { harmedCount, lostCount, type Loss } from "./study";

/** One line of the ranking: what fails, whom it takes along, and what the rest lose. */
export interface RankedLoss extends Loss {
  readonly key: string;
  readonly name: string;
  readonly lost: number;
  /** Hosts that lose anything at all. */ readonly harmed: number;
}

const keyOf = (failures: readonly Failure[]): string => failures.map(failureKey).join(" + ");

/**
 * Failures by whom they cut off: hosts without a network or a gateway first, then without the internet, then
 * without a DHCP server.
 */
export function ranked(index: PlanIndex, losses: readonly Loss[]): RankedLoss[] {
  return losses
    .map((loss): RankedLoss => ({
      ...loss,
      key: keyOf(loss.failures),
      name: loss.failures.map((failure) => failureName(index, failure)).join(" and "),
      lost: lostCount(loss),
      harmed: harmedCount(loss),
    }))
    .sort(
      (a, b) =>
        b.lost - a.lost ||
        b.noInternet.length - a.noInternet.length ||
        b.noAddress.length - a.noAddress.length ||
        byNaturalText(a.name, b.name),
    );
}

const NAMED = 6;

/** A loss by the segments it concerns: how many of each, and some by name. */
export interface LossBySegment {
  readonly segment: string;
  readonly name: string;
  readonly count: number;
  readonly some: string;
}

export function bySegment(index: PlanIndex, hosts: readonly string[]): LossBySegment[] {
  const groups = new Map<string, string[]>();
  for (const id of hosts) {
    const segment = index.plan.host.get(id)?.segment ?? "";
    putInto(groups, segment, id);
  }
  return [...groups]
    .map(([segment, ids]): LossBySegment => {
      const names = ids.map((id) => nameOf(index, "host", id)).sort(byNaturalText);
      return {
        segment,
        name: segment === "" ? "no segment" : nameOf(index, "segment", segment),
        count: ids.length,
        some:
          listed(names.slice(0, NAMED)) + (names.length > NAMED ? ` and ${names.length - NAMED} more` : ""),
      };
    })
    .sort((a, b) => b.count - a.count || byNaturalText(a.name, b.name));
}

/** A service that one thing alone keeps up: what, for whom, and what it hangs on. */
export interface SinglePoint {
  readonly service: "gateway" | "address" | "internet";
  readonly segment: string;
  readonly hosts: number;
  readonly by: readonly string[];
}

/**
 * Which services of which segments have no second way: failures that take one from hosts that stay on the
 * network themselves.
 */
export function singlePoints(index: PlanIndex, losses: readonly RankedLoss[]): SinglePoint[] {
  const found = new Map<
    string,
    { service: SinglePoint["service"]; segment: string; hosts: number; by: string[] }
  >();
  const note = (service: SinglePoint["service"], loss: RankedLoss, hosts: readonly string[]) => {
    for (const { segment, count } of bySegment(index, hosts)) {
      const key = `${service} ${segment}`;
      const own = found.get(key) ?? { service, segment, hosts: 0, by: [] };
      own.hosts = Math.max(own.hosts, count);
      own.by.push(loss.name);
      found.set(key, own);
    }
  };
  for (const loss of losses.filter((rankedLoss) => rankedLoss.failures.length === 1)) {
    note("gateway", loss, loss.noGateway);
    note("address", loss, loss.noAddress);
    note("internet", loss, loss.noInternet);
  }
  return [...found.values()].sort((a, b) => b.hosts - a.hosts || b.by.length - a.by.length);
}

/** "12 devices are cut off, 30 lose their gateway, 42 the internet"; what nothing loses is said, too. */
export function lossWords({ cutOff, noGateway, noAddress, noInternet, takeOver, storms }: Loss): string {
  const parts = [
    cutOff.length === 0 ? "" : `${counted(cutOff.length, "device is", "devices are")} cut off`,
    noGateway.length === 0 ? "" : `${counted(noGateway.length, "loses its gateway", "lose their gateway")}`,
    noInternet.length === 0 ? "" : `${counted(noInternet.length, "loses the internet", "lose the internet")}`,
    noAddress.length === 0
      ? ""
      : `${counted(noAddress.length, "finds no DHCP server", "find no DHCP server")}`,
  ].filter((part) => part !== "");
  const spare =
    takeOver.length === 0
      ? ""
      : ` ${counted(takeOver.length, "port that stood by takes", "ports that stood by take")} over.`;
  const round =
    storms.length === 0
      ? ""
      : `Frames go round in ${storms.length === 1 ? "VLAN" : "VLANs"} ${listed(storms.map(String))}. `;
  return `${round}${parts.length === 0 ? "Nobody loses anything." : `${parts.join(", ")}.`}${spare}`;
}
