import { offerTo, leasedTo, leasesOf, visitorAddress, whoAnswers } from "../dhcp";
import { nameOf, type Host, type PlanIndex, type Scope } from "../plan";
import { growPoolRepairs } from "../repairs";
import type { Address } from "../address";
import type { ProbeRun } from "./run";
import { passTo } from "./deliver";
import { switchHopsOf } from "./inspection";
import { hearingOf, judgeAnswer, type Judged } from "./judge-answer";
import { leaseOf, serverOf, type Lease } from "./lease";
import { stopWithoutServer } from "./nobody-answers";
import { sayExchange } from "./say-exchange";
import type { Started } from "./start";
import type { Cause } from "./step";
import { turned } from "./strayed";

/** Gets an IPv4 address by DHCP from whoever hears the client; null after a stop. */
export function askForLease(run: ProbeRun, started: Started): Lease | null {
  const { index } = run;
  const flood = run.flood(started.party.place);
  const judged = whoAnswers(index, flood)
    .filter(({ scope }) => scope.family === 4)
    .map((answer) => judgeAnswer(run, started, answer, switchHopsOf(run, flood, hearingOf(answer))));
  const chosen = judged.find(({ cause }) => cause === null);
  if (chosen === undefined) {
    const [first] = judged;
    if (first !== undefined && first.cause !== null) stopJudged(run, started, first, first.cause);
    else stopWithoutServer(run, started);
    return null;
  }
  passTo(run, flood, hearingOf(chosen.answer));
  const { scope } = chosen.answer;
  const home = index.plan.segment.get(scope.segment);
  const offer = offered(run, started, scope);
  if (offer === null || home === undefined) {
    stopUsedUp(run, scope);
    return null;
  }
  passOffer(run, chosen, judged, offer.reserved);
  const lease = leaseOf(index, home, offer.address, scope);
  sayExchange(run, started, chosen, lease);
  return { ...lease, turnedAt: turned(run, switchHopsOf(run, flood, hearingOf(chosen.answer))) };
}

/** The address a client has or would be given; null where the scope has none left for it. */
function offered(
  run: ProbeRun,
  { host, party }: Started,
  scope: Scope,
): { readonly address: Address; readonly reserved: boolean } | null {
  const { index } = run;
  const isHome = host?.segment === scope.segment;
  const reserved = isHome && host?.manner === "reserved";
  const held = host === null ? null : heldBy(index, host, scope, isHome);
  if (held !== null) return { address: held, reserved };
  if (host !== null && !reserved) return null;
  const [leases, guests] = [leasesOf(index, scope), run.guestLeases()];
  const taken = guests.size === 0 ? leases : new Map([...leases, ...guests]);
  return offerTo(index, scope, { mac: host?.mac ?? party.mac, leases: taken });
}

/** The lease that a host of the register has from this scope already; null without one. */
const heldBy = (index: PlanIndex, host: Host, scope: Scope, isHome: boolean): Address | null =>
  (isHome ? leasedTo(index, scope).get(host.id) : visitorAddress(index, scope, host)) ?? null;

const aboutScope = (scope: Scope) => [
  { kind: "scope" as const, id: scope.id },
  { kind: "segment" as const, id: scope.segment },
];

function stopUsedUp({ index, journey }: ProbeRun, scope: Scope): void {
  const name = index.plan.segment.get(scope.segment)?.name ?? "the segment";
  journey.stop(
    {
      title: serverOf(index, scope),
      place: "scope",
      says: "no address left to give",
      why: "Every address of the pool is given, reserved or excluded.",
      subjects: aboutScope(scope),
      device: scope.serverDevice,
    },
    {
      sentence: `The scope of ${name} has no address left.`,
      subjects: aboutScope(scope),
      // Made when somebody looks: of thousands that are asked only few are.
      get repairs() {
        return growPoolRepairs(index, scope);
      },
    },
  );
}

/** Says who offers what, and who else would have answered. */
function passOffer(
  { index, journey }: ProbeRun,
  chosen: Judged,
  judged: readonly Judged[],
  reserved: boolean,
): void {
  const { scope, relayedBy } = chosen.answer;
  const others = judged
    .filter((judged) => judged !== chosen && judged.cause === null && judged.answer.scope.id !== scope.id)
    .map((judged) => serverOf(index, judged.answer.scope));
  const relay =
    relayedBy === null ? "" : ` ${nameOf(index, "device", relayedBy)} passes the question on to it.`;
  const also = others.length > 0 ? ` ${others.join(" and ")} would answer too.` : "";
  journey.pass({
    title: serverOf(index, scope),
    place: "scope",
    says: `hears the question and offers ${reserved ? "its reserved address" : "an address from the pool"}`,
    why: `The scope of ${nameOf(index, "segment", scope.segment)} is served here.${relay}${also}`,
    subjects: aboutScope(scope),
    device: scope.serverDevice,
  });
}

function stopJudged(run: ProbeRun, started: Started, { answer, party }: Judged, cause: Cause): void {
  passTo(run, run.flood(started.party.place), hearingOf(answer));
  run.journey.stop(
    {
      title: party?.name ?? "server",
      place: "scope",
      says: "its answer does not come through",
      subjects: cause.subjects,
    },
    cause,
  );
}
