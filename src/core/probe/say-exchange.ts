import type { ProbeRun } from "./run";
import type { Judged } from "./judge-answer";
import type { Lease } from "./lease";
import type { Started } from "./start";

/** The four messages of RFC 2131 section 3.1, as they crossed the wires. */
export function sayExchange(
  run: ProbeRun,
  { party: client }: Started,
  { answer, party: server }: Judged,
  lease: Lease,
): void {
  const flood = run.flood(client.place);
  const leg4 = server?.leg?.addresses4[0] ?? null;
  const part = {
    kind: "dhcp" as const,
    client: client.mac,
    server: leg4 ?? server?.host?.ipv4 ?? null,
    relay: answer.relayedBy === null ? null : leg4,
    ...givenIn(run, lease),
  };
  const question = { from: client.mac, to: null, flood, reached: null };
  const reply = {
    from: server?.mac ?? client.mac,
    to: client.mac,
    flood: server === null ? flood : run.flood(server.place),
    reached: server === null ? null : run.hears(server.place, client.place),
  };
  run.say({ what: "DHCP discover", ...question, content: { ...part, type: "discover" } });
  run.say({ what: "DHCP offer", ...reply, content: { ...part, type: "offer" } });
  run.say({ what: "DHCP request", ...question, content: { ...part, type: "request" } });
  run.say({ what: "DHCP acknowledgement", ...reply, content: { ...part, type: "ack" } });
}

const givenIn = ({ index }: ProbeRun, lease: Lease) => ({
  given: lease.address,
  maskBits: lease.own[0]?.length ?? 24,
  router: lease.gateway,
  dns: lease.dns,
  leaseSeconds: lease.leaseSeconds ?? 0,
  domain: index.plan.segment.get(lease.segment ?? "")?.domainName ?? "",
});
