import { formatAddress } from "../address";
import type { Answer } from "../dhcp";
import { partyOfLeg, type Hearing, type Party } from "../places";
import type { ProbeRun } from "./run";
import { explain } from "./deliver";
import { askAndHear } from "./exchange";
import { snoopingStops, type SwitchHop } from "./inspection";
import type { Started } from "./start";
import type { Cause } from "./step";

/** A server's answer that comes through, or why the first of them does not. */
export interface Judged {
  readonly answer: Answer;
  readonly party: Party | null;
  readonly cause: Cause | null;
}

/** Where the server, or the relay that asks it, is; null when it is nowhere. */
export function partyOfServer(run: ProbeRun, { scope, relayedBy }: Answer): Party | null {
  const { index } = run;
  const device = relayedBy ?? scope.serverDevice;
  if (device !== null) {
    const leg = index.interfacesOf(device).find((leg) => leg.segment === scope.segment);
    return leg === undefined ? null : partyOfLeg(index, leg);
  }
  const host = scope.serverHost === null ? undefined : index.plan.host.get(scope.serverHost);
  return host === undefined ? null : run.partyOf(host);
}

/** How the question came to the server. */
export const hearingOf = ({ arrival, emission }: Answer): Hearing => ({ arrival, emission });

/**
 * Whether an answer gets from its server to the client: back through snooping, back over the wires, and from
 * behind a relay.
 */
export function judgeAnswer(
  run: ProbeRun,
  started: Started,
  answer: Answer,
  passings: readonly SwitchHop[],
): Judged {
  const party = partyOfServer(run, answer);
  const snooped = snoopingStops(run, passings);
  if (snooped !== null) return { answer, party, cause: snooped };
  const relay = answer.relayedBy === null ? null : relayCause(run, answer, answer.relayedBy);
  if (relay !== null) return { answer, party, cause: relay };
  if (party !== null && run.hears(party.place, started.party.place) === null) {
    const aside = run.aside();
    explain(aside, party, started.party);
    const cause = aside.journey.cause ?? {
      sentence: "",
      subjects: [{ kind: "scope" as const, id: answer.scope.id }],
      repairs: [],
    };
    return {
      answer,
      party,
      cause: {
        ...cause,
        sentence: `${party.name} hears the question, and its offer does not come back. ${cause.sentence}`,
      },
    };
  }
  return { answer, party, cause: null };
}

function relayCause(run: ProbeRun, { scope }: Answer, relay: string): Cause | null {
  const { index } = run;
  const device = index.plan.device.get(relay);
  const leg = index.interfacesOf(relay).find((leg) => leg.segment === scope.segment);
  const to = leg?.relayTo ?? null;
  const from = leg?.addresses4[0];
  if (
    device === undefined ||
    leg === undefined ||
    to === null ||
    from === undefined ||
    index.interfacesOf(relay).some((leg) => leg.addresses4.includes(to))
  )
    return null;
  const asked = askAndHear(
    run,
    device,
    { family: 4, protocol: "udp", src: from, dst: to, sport: 67, dport: 67 },
    null,
  );
  if (asked.cause === null) return null;
  const what = asked.arrived ? "whose answer does not come back" : "and it does not arrive";
  return {
    ...asked.cause,
    sentence: `${device.name} relays the question to ${formatAddress(to)}, ${what}: ${asked.cause.sentence}`,
  };
}
