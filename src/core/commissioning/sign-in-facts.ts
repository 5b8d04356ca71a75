import {
  afterEdits,
  nameOf,
  PlanEdits,
  signInPorts,
  type Host,
  type PlanIndex,
  type SignIn,
  type SignInPort,
} from "../plan";
import { asClient, probe } from "../probe";
import type { Fact } from "./fact";
import { leaseExpected, readsTheSame } from "./leases";
import { withoutPulled, type Tried } from "./pulled";
import type { Asked, Expected, SiteTest } from "./tests";

/** What is asked of the ports of a sign-in (IEEE 802.1X): one that is known, one that is not, and no server. */
const SITUATIONS = ["known", "stranger", "silent"] as const;
type Situation = (typeof SITUATIONS)[number];

const signInFact = (profile: string, situation: Situation): string => `sign-in ${profile} ${situation}`;
const WORDS: Readonly<Record<Situation, string>> = {
  known: "who is known gets in",
  stranger: "what becomes of a stranger",
  silent: "what becomes of who is known while no server answers",
};

interface Used {
  readonly profile: SignIn;
  readonly ports: readonly SignInPort[];
  /** Who is planned at these ports and asks for its address. */
  readonly hosts: readonly Host[];
}

/** The profiles that ports ask by, with their ports. */
function usedIn(index: PlanIndex): Used[] {
  const all = signInPorts(index);
  return [...index.plan.signIn.values()].flatMap((profile): Used[] => {
    const ports = all.filter((signInPort) => signInPort.profile?.id === profile.id);
    const hosts = ports
      .flatMap(({ port }) => index.hostsAt(port.id))
      .filter(({ manner }) => manner !== "typed");
    return ports.length === 0 ? [] : [{ profile, ports, hosts }];
  });
}

/** Of each sign-in what has to be proven; of somebody who is known only where somebody is planned. */
export const signInFacts = (index: PlanIndex): Fact[] =>
  usedIn(index).flatMap(({ profile, hosts }) =>
    SITUATIONS.filter((situation) => situation === "stranger" || hosts.length > 0).map((situation): Fact => ({
      id: signInFact(profile.id, situation),
      kind: "sign-in",
      words: `${profile.name}: ${WORDS[situation]}`,
      shownOn: null,
    })),
  );

/** What a device of the plan shows of its address. */
const shownBy = (index: PlanIndex, host: Host): Expected =>
  leaseExpected(
    index,
    probe(index, asClient({ at: "host", host: host.id }, { to: "address" }), () => ""),
    host,
  );

/** As many devices are tried until one shows it. */
const MOST_TRIED = 6;

const SAME = "It would come out the same if it were otherwise: no reading tells.";

/** A device that is known: the reading of its address would come out otherwise if no server let it in. */
function knownTried(index: PlanIndex, { profile, hosts }: Used, devices: readonly SiteTest[]): Tried {
  const fact = signInFact(profile.id, "known");
  const silent = withoutPulled(index, { what: "servers", id: profile.id });
  for (const host of hosts.slice(0, MOST_TRIED)) {
    const test = devices.find(({ id }) => id === `lease host ${host.id}`);
    if (test === undefined || readsTheSame(test.expected, shownBy(silent, host))) continue;
    return { test: { ...test, proves: [...test.proves, fact] } };
  }
  return { fact, why: SAME };
}

const lookAt = (
  host: Host,
  part: Pick<SiteTest, "id" | "does" | "expected" | "proves" | "pulled">,
): SiteTest => ({
  place: host.place,
  at: host.name,
  question: asClient({ at: "host", host: host.id }, { to: "address" }),
  ...part,
});

/** A laptop that nobody knows: it would show something else at a port that asks for no sign-in. */
function strangerTried(index: PlanIndex, { profile, ports }: Used, laptops: readonly Asked[]): Tried {
  const fact = signInFact(profile.id, "stranger");
  const own = new Set(ports.map(({ port }) => port.id));
  const edits = new PlanEdits(index.plan);
  for (const { port } of ports) edits.patch("port", port.id, { guards: { ...port.guards, signIn: false } });
  const open = afterEdits(index, edits);
  for (const { test, spot } of laptops) {
    if (open === null || spot.from.at !== "port" || !own.has(spot.from.port) || test.question === null)
      continue;
    if (
      readsTheSame(
        test.expected,
        leaseExpected(
          open,
          probe(open, test.question, () => ""),
          null,
        ),
      )
    )
      continue;
    return { test: { ...test, proves: [...test.proves, fact] } };
  }
  return { fact, why: SAME };
}

/** The site where it is otherwise what becomes of those who ask while no server answers. */
function otherwiseSilent(index: PlanIndex, { profile, ports }: Used): PlanIndex | null {
  const edits = new PlanEdits(index.plan);
  const own = ports.find(({ port }) => port.pvid !== null)?.port.pvid ?? null;
  edits.patch("signIn", profile.id, { serverDown: profile.serverDown === null ? own : null });
  return afterEdits(index, edits);
}

function silentTried(index: PlanIndex, used: Used): Tried {
  const { profile, hosts } = used;
  if (profile.servers.length === 0)
    return { fact: signInFact(profile.id, "silent"), why: "It names no server that could be taken away." };
  const [fact, pulled] = [signInFact(profile.id, "silent"), { what: "servers", id: profile.id } as const];
  const silent = withoutPulled(index, pulled);
  const other = otherwiseSilent(index, used);
  const otherSilent = other === null ? null : withoutPulled(other, pulled);
  const servers = profile.servers.map((id) => nameOf(index, "host", id)).join(" and ");
  for (const host of hosts.slice(0, MOST_TRIED)) {
    const expected = shownBy(silent, host);
    if (otherSilent === null || readsTheSame(expected, shownBy(otherSilent, host))) continue;
    const does =
      `Take ${servers} off the network. Plug ${host.name} out and in, and look which address it has. ` +
      "Then put all back. At a quiet hour: nobody signs in meanwhile.";
    return {
      test: lookAt(host, { id: `sign-in silent ${profile.id}`, does, expected, proves: [fact], pulled }),
    };
  }
  return { fact, why: SAME };
}

/** A reading for each situation of each sign-in, or why there is none. */
export const signInTried = (
  index: PlanIndex,
  laptops: readonly Asked[],
  devices: readonly SiteTest[],
): Tried[] =>
  usedIn(index).flatMap((used) => [
    strangerTried(index, used, laptops),
    ...(used.hosts.length === 0 ? [] : [knownTried(index, used, devices), silentTried(index, used)]),
  ]);
