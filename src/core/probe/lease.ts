import { netmaskText, containsAddress, type Address, type Mac } from "../address";
import { repairsOf, runChecks, listFindings } from "../checks";
import { leasableCount, offerTo, whoAnswers } from "../dhcp";
import { nameOf, type PlanIndex, type Scope, type Segment } from "../plan";
import { FABRIC } from "../switching";
import { passHops, stopOnTheWay } from "./hops";
import type { Started } from "./start";
import type { Journey } from "./step";

/** What the client shows after it got (or typed in) its address. */
export interface Lease {
  readonly address: Address;
  readonly mask: string;
  readonly gateway: Address | null;
  readonly dns: readonly Address[];
  readonly leaseSeconds: number | null;
  readonly server: string;
  readonly segment: string;
  readonly free: number | null;
}

const serverOf = (index: PlanIndex, scope: Scope): string =>
  scope.serverDevice !== null ? nameOf(index, "device", scope.serverDevice) : scope.serverHost === null ? "nobody" : nameOf(index, "host", scope.serverHost);

function shown(index: PlanIndex, segment: Segment, address: Address, scope: Scope | null, server: string): Lease {
  const prefix = segment.prefixes4.find((p) => containsAddress(p, address));
  return {
    address, mask: prefix === undefined ? "" : netmaskText(prefix), gateway: index.gatewayOf(segment)?.addresses4[0] ?? null, dns: segment.dns,
    leaseSeconds: scope?.leaseSeconds ?? null, server, segment: segment.id, free: scope === null ? null : Number(leasableCount(index, scope)),
  };
}

/** Gets an address from whoever hears the client; null after a stop. */
export function getLease(index: PlanIndex, journey: Journey, started: Started, mac: Mac | null): Lease | null {
  const { result, segment, host } = started;
  if (host?.manner === "typed" && host.ipv4 !== null) {
    journey.pass({ title: host.name, place: "typed in", says: "has its address typed in and asks nobody", why: "", tag: undefined, subjects: [{ kind: "host", id: host.id }], device: null, ports: [] });
    return shown(index, segment, host.ipv4, null, "typed in");
  }
  const answers = whoAnswers(index, result);
  const answer = answers[0];
  if (answer === undefined) {
    stopWithoutServer(index, journey, started);
    return null;
  }
  const fabric = index.derived(FABRIC);
  if (answer.arrival >= 0) passHops(index, journey, result, answer.arrival, undefined);
  else {
    const emission = result.emissions[answer.emission];
    if (emission !== undefined && emission.after >= 0) passHops(index, journey, result, emission.after, fabric.ports[emission.port]);
  }
  const { scope } = answer;
  const server = serverOf(index, scope);
  const home = index.plan.segment.get(scope.segment) ?? segment;
  const offer = offerTo(index, scope, mac ?? host?.mac ?? null);
  const subjects = [{ kind: "scope" as const, id: scope.id }, { kind: "segment" as const, id: scope.segment }];
  const others = answers.slice(1).filter((other) => other.scope.id !== scope.id).map((other) => serverOf(index, other.scope));
  const relay = answer.relayedBy === null ? "" : ` ${nameOf(index, "device", answer.relayedBy)} passes the question on to it.`;
  if (offer === null) {
    const finding = listFindings(runChecks(index)).find((f) => f.code === "pool-too-small" && f.subjects.some((s) => s.id === scope.id));
    journey.stop(
      { title: server, place: "scope", says: "no address left to give", why: "Every address of the pool is reserved or excluded.", tag: undefined, subjects, device: scope.serverDevice, ports: [] },
      { sentence: `The scope of ${home.name} has no address left.`, subjects, repairs: finding === undefined ? [] : repairsOf(finding, index) },
    );
    return null;
  }
  const kind = offer.reserved ? "its reserved address" : "an address from the pool";
  const also = others.length > 0 ? ` ${others.join(" and ")} would answer too.` : "";
  journey.pass({
    title: server, place: "scope", says: `hears the question and offers ${kind}`, why: `The scope of ${home.name} is served here.${relay}${also}`,
    tag: undefined, subjects, device: scope.serverDevice, ports: [],
  });
  return shown(index, home, offer.address, scope, server);
}

/** Nobody answered: says how far the question came towards the server that should have. */
function stopWithoutServer(index: PlanIndex, journey: Journey, { segment, device, port, tag, vid }: Started): void {
  const subjects = [{ kind: "segment" as const, id: segment.id }];
  const scope = index.scopesOf(segment.id)[0];
  const goal = scope?.serverDevice ?? hostPlace(index, scope?.serverHost ?? null);
  if (scope !== undefined && goal !== null && stopOnTheWay(index, journey, device, goal, port, tag, vid)) return;
  const finding = listFindings(runChecks(index)).find((f) => ["no-address-server", "gateway-missing"].includes(f.code) && f.subjects.some((s) => s.id === segment.id));
  const nobody = scope === undefined ? `${segment.name} has no scope: nobody gives addresses there.` : `The server of ${segment.name} has no leg in VLAN ${vid}, so it never hears the question.`;
  journey.stop(
    { title: segment.name, place: `VLAN ${vid}`, says: "nobody answers", why: nobody, tag, subjects, device, ports: [] },
    { sentence: nobody, subjects, repairs: finding === undefined ? [] : repairsOf(finding, index) },
  );
}

function hostPlace(index: PlanIndex, hostId: string | null): string | null {
  const host = hostId === null ? undefined : index.plan.host.get(hostId);
  const port = host?.attachment.at === "port" ? index.plan.port.get(host.attachment.port) : undefined;
  return port?.device ?? null;
}
