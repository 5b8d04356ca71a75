import { nameOf, ssidsOf, wirelessProfile, type Device, type PlanIndex, type Ssid } from "../../plan";
import { adminServerReached, serverReached } from "../../probe";
import { SECURITY_FACTS } from "../../wireless";
import { check, type Found } from "../check";
import { ASKED_READS, askedOn, repairsFor } from "./asked-servers";

interface Asking {
  readonly device: string;
  readonly sentence: string;
}

/** Gear whose administrators sign in by servers. */
const byServers = ({ plan }: PlanIndex): Device[] =>
  [...plan.device.values()].filter(({ adminSignIn }) => adminSignIn.by !== "local");

export const adminServerUnreachable = check<Asking>({
  code: "admin-server-unreachable",
  severity: "warn",
  family: "guards",
  title: "A device does not reach the servers that its administrators sign in by",
  why: "They get in by its local account only, if it has one.",
  reads: ASKED_READS,
  find: (index) =>
    byServers(index).flatMap((device): Found<Asking>[] => {
      const reached = adminServerReached(askedOn(index), device);
      return "server" in reached
        ? []
        : [
            {
              subjects: [{ kind: "device", id: device.id }],
              data: { device: device.id, sentence: reached.cause.sentence },
            },
          ];
    }),
  describe: ({ sentence }) => sentence,
  repairs: ({ device }, index) => {
    const own = index.plan.device.get(device);
    return own === undefined ? [] : repairsFor(index, (run) => adminServerReached(run, own));
  },
});

export const adminWithoutAccount = check<Pick<Asking, "device">>({
  code: "admin-without-local-account",
  severity: "warn",
  family: "guards",
  title: "Nobody gets into a device while its servers for administrators are down",
  why: "The day on which they are down is the day on which somebody has to get in.",
  reads: ["device"],
  find: (index) =>
    byServers(index).flatMap(({ id, adminSignIn }) =>
      adminSignIn.localAccount ? [] : [{ subjects: [{ kind: "device" as const, id }], data: { device: id } }],
    ),
  describe: ({ device }, index) => `${nameOf(index, "device", device)} has no local account.`,
  repairs: ({ device }, index) => [
    {
      label: `Keep a local account on ${nameOf(index, "device", device)}`,
      planner: "set-admin-sign-in",
      args: { device, localAccount: true },
      edit: (edits) =>
        edits.patch("device", device, {
          adminSignIn: { ...edits.need("device", device).adminSignIn, localAccount: true },
        }),
    },
  ],
});

interface Joining extends Asking {
  readonly ssid: string;
}

/** Why an access point can't ask for those who join a name; null where a server answers it. */
function cannotAsk(index: PlanIndex, device: Device, ssid: Ssid): string | null {
  const profile = wirelessProfile(index, ssid);
  if (profile === undefined)
    return `${ssid.name} is for sign-in by name, and no profile says which servers are asked.`;
  const reached = serverReached(askedOn(index), device, profile);
  return "server" in reached ? null : reached.cause.sentence;
}

export const wirelessSignInUnreachable = check<Joining>({
  code: "wireless-sign-in-unreachable",
  severity: "stop",
  family: "wireless",
  title: "An access point does not reach the servers that let people join",
  why: "Nobody joins the name there: the access point itself asks the servers, from its own address.",
  reads: [...ASKED_READS, "ssid"],
  find: (index) =>
    [...index.plan.device.values()].flatMap((device) =>
      ssidsOf(index, device)
        .filter(({ security }) => SECURITY_FACTS[security].signsIn)
        .flatMap((ssid): Found<Joining>[] => {
          const sentence = cannotAsk(index, device, ssid);
          return sentence === null
            ? []
            : [
                {
                  subjects: [
                    { kind: "ssid", id: ssid.id },
                    { kind: "device", id: device.id },
                  ],
                  data: { device: device.id, ssid: ssid.id, sentence },
                },
              ];
        }),
    ),
  describe: ({ ssid, device, sentence }, index) =>
    `Nobody joins ${nameOf(index, "ssid", ssid)} at ${nameOf(index, "device", device)}. ${sentence}`,
  repairs: ({ ssid, device }, index) => {
    const [name, own] = [index.plan.ssid.get(ssid), index.plan.device.get(device)];
    const profile = name === undefined ? undefined : wirelessProfile(index, name);
    return own === undefined || profile === undefined
      ? []
      : repairsFor(index, (run) => serverReached(run, own, profile));
  },
});

interface Ends {
  readonly profile: string;
  readonly until: string;
  readonly isOver: boolean;
}

/** Days before its end on which a certificate is spoken of. */
const AHEAD_MS = 30 * 86_400_000;

export const certificateEnds = check<Ends>({
  code: "certificate-ends",
  severity: "warn",
  family: "guards",
  title: "The certificate of the authentication servers ends",
  why: "Devices that check it, as they should, do not sign in from that day on.",
  reads: ["signIn"],
  find: (index) =>
    [...index.plan.signIn.values()].flatMap(({ id, certificateUntil: until }): Found<Ends>[] => {
      const { today } = index;
      if (until === null || today === null || Date.parse(until) - Date.parse(today) > AHEAD_MS) return [];
      return [{ subjects: [{ kind: "signIn", id }], data: { profile: id, until, isOver: until < today } }];
    }),
  describe: ({ profile, until, isOver }, index) =>
    `The certificate of the servers of ${nameOf(index, "signIn", profile)} ` +
    `${isOver ? "ended" : "ends"} on ${until}: put a new one on them and write its last day here.`,
  repairs: () => [],
});
