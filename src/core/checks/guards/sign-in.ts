import {
  nameOf,
  signInPorts,
  signInVids,
  type Device,
  type Host,
  type PlanEdits,
  type PlanIndex,
  type Port,
  type SignIn,
  type Vid,
} from "../../plan";
import { choiceWord, PORT_HOSTS } from "../../planners";
import { servicesNamed } from "../../policy";
import { speaksSignIn } from "../../probe";
import { counted, listed, type Repair } from "../../repairs";
import { hostsOfProfile, patience, QUICK, quicker, timeline } from "../../guards";
import { check, type Found } from "../check";

const READS = ["signIn", "port", "device", "host"] as const;

const profiles = ({ plan }: PlanIndex): SignIn[] => [...plan.signIn.values()];
const editProfile = (
  { id }: Pick<SignIn, "id">,
  label: string,
  fields: (profile: SignIn) => Partial<SignIn>,
): Repair => ({
  label,
  planner: "edit-sign-in",
  args: { profile: id },
  edit: (edits: PlanEdits) => edits.patch("signIn", id, fields(edits.need("signIn", id))),
});

/** Some hosts by name, the first few of many. */
function hostNames(index: PlanIndex, hosts: readonly string[]): string {
  const most = hosts.slice(0, 3).map((id) => nameOf(index, "host", id));
  return listed(hosts.length > 3 ? [...most, `${hosts.length - 3} more`] : most);
}

interface TooLateData {
  readonly profile: string;
  readonly hosts: readonly string[];
  readonly ready: number;
  readonly waits: number;
}

/** When a host that does not sign in has its network at a port of a profile; null where it never has. */
const readyAfter = (profile: SignIn, host: Host): number | null =>
  timeline({ profile, speaks: speaksSignIn(host), isKnown: host.mac !== null, silent: 0 }).ready;

function tooLate(profile: SignIn, host: Host): { ready: number; waits: number } | null {
  const [ready, waits] = [readyAfter(profile, host), patience(host)];
  return profile.stage !== "closed" || ready === null || waits === null || ready <= waits
    ? null
    : { ready, waits };
}

export const givesUpFirst = check<TooLateData>({
  code: "gives-up-before-let-in",
  severity: "stop",
  family: "guards",
  title: "Devices stop asking for an address before the switch lets them in",
  why:
    "The switch first waits for a sign-in that never comes; a DHCP client that got no answer to its " +
    "questions rests (RFC 2131 section 4.1), and comes up without a network each time it is switched on.",
  reads: READS,
  find: (index) =>
    profiles(index).flatMap((profile): Found<TooLateData>[] => {
      const late = hostsOfProfile(index, profile).flatMap((host) => {
        const times = tooLate(profile, host);
        return times === null ? [] : [{ id: host.id, ...times }];
      });
      const [first] = late;
      return first === undefined
        ? []
        : [
            {
              subjects: [
                { kind: "signIn", id: profile.id },
                ...late.slice(0, 8).map(({ id }) => ({ kind: "host" as const, id })),
              ],
              data: {
                profile: profile.id,
                hosts: late.map(({ id }) => id),
                ready: first.ready,
                waits: first.waits,
              },
            },
          ];
    }),
  describe: ({ profile, hosts, ready, waits }, index) =>
    `${hostNames(index, hosts)} ${hosts.length === 1 ? "asks" : "ask"} for an address for ${waits} s, and ` +
    `${nameOf(index, "signIn", profile)} lets ${hosts.length === 1 ? "it" : "them"} in after ${ready} s.`,
  repairs: ({ profile: id, hosts, waits }, index) => {
    const profile = index.plan.signIn.get(id);
    if (profile === undefined) return [];
    const helps = (changed: SignIn) =>
      hosts.every((host) => {
        const own = index.plan.host.get(host);
        const ready = own === undefined ? null : readyAfter(changed, own);
        return ready !== null && ready <= waits;
      });
    const asks = editProfile(
      profile,
      `Ask ${QUICK.tries} x ${QUICK.waitSeconds} s on ${profile.name}`,
      (own) => ({
        timers: quicker(own).timers,
      }),
    );
    const first = editProfile(profile, `Try the MAC address first on ${profile.name}`, () => ({
      order: "macFirst",
    }));
    return [
      ...(helps(quicker(profile)) ? [asks] : []),
      ...(helps({ ...profile, order: "macFirst" }) ? [first] : []),
    ];
  },
});

interface PhonesData {
  readonly profile: string;
  readonly hosts: readonly string[];
  readonly vid: Vid;
}

export const phonesWithoutServer = check<PhonesData>({
  code: "phones-without-server",
  severity: "warn",
  family: "guards",
  title: "Phones lose their VLAN while no authentication server answers",
  why: "Nobody can call then, for help neither: their own VLAN has to stay open for that case.",
  reads: READS,
  find: (index) =>
    profiles(index).flatMap((profile): Found<PhonesData>[] => {
      if (profile.stage === "watch") return [];
      const phones = hostsOfProfile(index, profile).filter(
        ({ tag }) => tag !== null && tag !== profile.serverDownVoice,
      );
      const vid = phones[0]?.tag ?? null;
      return vid === null
        ? []
        : [
            {
              subjects: [{ kind: "signIn", id: profile.id }],
              data: { profile: profile.id, hosts: phones.map(({ id }) => id), vid },
            },
          ];
    }),
  describe: ({ profile, hosts, vid }, index) =>
    `With all servers of ${nameOf(index, "signIn", profile)} down ${hostNames(index, hosts)} ` +
    `${hosts.length === 1 ? "loses" : "lose"} VLAN ${vid}, and with it calls for help.`,
  repairs: ({ profile: id, vid }, index) => {
    const profile = index.plan.signIn.get(id);
    return profile === undefined
      ? []
      : [
          editProfile(profile, `Leave phones in VLAN ${vid} while no server answers`, () => ({
            serverDownVoice: vid,
          })),
        ];
  },
});

type GivenTo = "visitors" | "failed" | "serverDown" | "serverDownVoice";
const GIVEN: Readonly<Record<GivenTo, string>> = {
  visitors: "visitors",
  failed: "those whose sign-in fails",
  serverDown: "everybody while no server answers",
  serverDownVoice: "phones while no server answers",
};
const GIVEN_TO: readonly GivenTo[] = ["visitors", "failed", "serverDown", "serverDownVoice"];

interface GivenData {
  readonly profile: string;
  readonly device: string;
  readonly to: GivenTo;
  readonly vid: Vid;
}

/** The ports that ask for a sign-in by a profile. */
const portsAsking = (index: PlanIndex): { device: Device; port: Port; profile: SignIn }[] =>
  signInPorts(index).flatMap(({ profile, ...at }) => (profile === null ? [] : [{ ...at, profile }]));

export const signInVlanUnknown = check<GivenData>({
  code: "sign-in-vlan-unknown",
  severity: "stop",
  family: "guards",
  title: "A sign-in may put somebody into a VLAN that there is not",
  why: "The switch then keeps the port closed, or leaves it where it was.",
  reads: [...READS, "vlan"],
  find: (index) => {
    const found = new Map<string, Found<GivenData>>();
    for (const { device, port, profile } of portsAsking(index)) {
      const given = new Set(signInVids(index, port));
      for (const to of GIVEN_TO) {
        const vid = profile[to];
        if (vid === null || !given.has(vid)) continue;
        if (index.vlanOf(device.domain, vid) !== undefined) continue;
        found.set(`${profile.id} ${device.id} ${to}`, {
          subjects: [
            { kind: "signIn", id: profile.id },
            { kind: "device", id: device.id },
          ],
          data: { profile: profile.id, device: device.id, to, vid },
          apart: to,
        });
      }
    }
    return [...found.values()];
  },
  describe: ({ profile, device, to, vid }, index) =>
    `${nameOf(index, "signIn", profile)} puts ${GIVEN[to]} into VLAN ${vid}, ` +
    `and there is no such VLAN where ${nameOf(index, "device", device)} is.`,
  repairs: ({ profile: id, to }, index) => {
    const profile = index.plan.signIn.get(id);
    return profile === undefined
      ? []
      : [editProfile(profile, `Put ${GIVEN[to]} into no VLAN of their own`, () => ({ [to]: null }))];
  },
});

interface CrowdData {
  readonly profile: string;
  readonly port: string;
  readonly hosts: readonly string[];
}

export const tooManyBehindPort = check<CrowdData>({
  code: "more-than-sign-in-admits",
  severity: "stop",
  family: "guards",
  title: "More is planned at a port than its sign-in lets in",
  why: "Who comes later stays out, or takes the others' place.",
  reads: READS,
  find: (index) =>
    portsAsking(index).flatMap(({ port, profile }): Found<CrowdData>[] => {
      const hosts = index.hostsAt(port.id);
      const phones = hosts.filter(({ kind, tag }) => kind === "phone" || tag !== null).length;
      const fits =
        profile.hosts === "several" ||
        profile.hosts === "many" ||
        (profile.hosts === "one" ? hosts.length <= 1 : phones <= 1 && hosts.length - phones <= 1);
      return fits
        ? []
        : [
            {
              subjects: [
                { kind: "port", id: port.id },
                { kind: "signIn", id: profile.id },
              ],
              data: { profile: profile.id, port: port.id, hosts: hosts.map(({ id }) => id) },
            },
          ];
    }),
  describe: ({ profile, port, hosts }, index) =>
    `${nameOf(index, "port", port)} has ${hostNames(index, hosts)}, and ${nameOf(index, "signIn", profile)} ` +
    `lets in ${choiceWord(PORT_HOSTS, index.plan.signIn.get(profile)?.hosts ?? "one")}.`,
  repairs: ({ profile: id }, index) => {
    const profile = index.plan.signIn.get(id);
    return profile === undefined
      ? []
      : [
          editProfile(profile, `Let several in at the ports of ${profile.name}, each by itself`, () => ({
            hosts: "several",
          })),
        ];
  },
});

interface ProfileData {
  readonly profile: string;
}

const asksDhcp = ({ before }: SignIn): boolean =>
  before.some(
    ({ protocol, ports }) => protocol === "udp" && ports.some(([low, high]) => low <= 67 && high >= 67),
  );

export const limitedWithoutDhcp = check<ProfileData>({
  code: "limited-without-dhcp",
  severity: "warn",
  family: "guards",
  title: "At the stage limited nobody gets an address before a sign-in",
  why: "What passes before a sign-in begins with DHCP; without it the stage is no other than closed.",
  reads: READS,
  find: (index) =>
    profiles(index)
      .filter(
        (profile) =>
          profile.stage === "limited" && !asksDhcp(profile) && hostsOfProfile(index, profile).length > 0,
      )
      .map(({ id }): Found<ProfileData> => ({ subjects: [{ kind: "signIn", id }], data: { profile: id } })),
  describe: ({ profile }, index) =>
    `${nameOf(index, "signIn", profile)} is limited, and DHCP is not among what passes before a sign-in.`,
  repairs: ({ profile: id }, index) => {
    const profile = index.plan.signIn.get(id);
    return profile === undefined
      ? []
      : [
          editProfile(profile, "Let DHCP and DNS pass before a sign-in", ({ before }) => ({
            before: [...before, ...servicesNamed("dhcp"), ...servicesNamed("dns")].slice(0, 32),
          })),
        ];
  },
});

export const signInWatches = check<ProfileData & { readonly ports: number }>({
  code: "sign-in-watches",
  severity: "note",
  family: "guards",
  title: "Ports ask for a sign-in and let everybody in",
  why: "The stage watch is for finding out who would stay outside; it keeps nobody out.",
  reads: READS,
  find: (index) =>
    profiles(index).flatMap((profile) => {
      const ports =
        profile.stage === "watch"
          ? portsAsking(index).filter((asking) => asking.profile === profile).length
          : 0;
      return ports === 0
        ? []
        : [{ subjects: [{ kind: "signIn" as const, id: profile.id }], data: { profile: profile.id, ports } }];
    }),
  describe: ({ profile, ports }, index) =>
    `${nameOf(index, "signIn", profile)} is at the stage watch: ` +
    `${counted(ports, "port lets", "ports let")} everybody in.`,
  repairs: ({ profile: id }, index) => {
    const profile = index.plan.signIn.get(id);
    return profile === undefined
      ? []
      : [editProfile(profile, "Go on to limited", () => ({ stage: "limited" }))];
  },
});
