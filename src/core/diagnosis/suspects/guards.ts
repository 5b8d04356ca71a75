import { nameOf, type PlanIndex, type Port } from "../../plan";
import { edited, type Suspect } from "../suspect";
import { likeCableOut } from "./ports";

type Guards = Port["guards"];
/** A guard that can be set otherwise: what is wrong then, and what mends it. */
interface Wrong {
  readonly key: string;
  readonly isPossible: boolean;
  readonly words: string;
  readonly mend: string;
  readonly patch: Partial<Guards>;
}

/** Whether a tree's messages come in at a port: that is what the guard waits for. */
function hearsTree(index: PlanIndex, port: string): boolean {
  const ends = [index.plan.port.get(port), index.peerOf(port)];
  return ends.every((end) => (index.plan.device.get(end?.device ?? "")?.tree.kind ?? "none") !== "none");
}

function wrongAt(index: PlanIndex, { id, guards }: Port, name: string, isTrunk: boolean): Wrong[] {
  const signsIn = guards.signIn;
  return [
    {
      key: "trust",
      isPossible: guards.dhcpTrust,
      words: `${name} is not trusted for DHCP`,
      mend: `Trust ${name} for DHCP, and save.`,
      patch: { dhcpTrust: false },
    },
    {
      key: "arp",
      isPossible: guards.arpTrust,
      words: `${name} is not trusted for ARP`,
      mend: `Trust ${name} for ARP, and save.`,
      patch: { arpTrust: false },
    },
    {
      key: "bpdu",
      isPossible: isTrunk && !guards.bpduGuard && hearsTree(index, id),
      words: `The BPDU guard at ${name} switched it off`,
      mend: `Switch the BPDU guard at ${name} off, then the port on.`,
      patch: { bpduGuard: true },
    },
    {
      key: "macs",
      isPossible: index.hostsAt(id).length > 1 && guards.macLimit !== 1,
      words: `${name} takes one MAC address only`,
      mend: `Raise the MAC limit of ${name}, and save.`,
      patch: { macLimit: 1 },
    },
    {
      key: "alone",
      isPossible: !isTrunk && !guards.isolated,
      words: `${name} is isolated`,
      mend: `Switch isolation at ${name} off, and save.`,
      patch: { isolated: true },
    },
    {
      key: "asks",
      isPossible: signsIn || (!isTrunk && index.plan.signIn.size > 0),
      words: signsIn ? `${name} asks for no sign-in` : `${name} asks for a sign-in`,
      mend: `Switch the sign-in at ${name} ${signsIn ? "on" : "off"}, and save.`,
      patch: { signIn: !signsIn },
    },
  ];
}

/** The guards of one port, each too strict, or not there. */
export function guardSuspects(index: PlanIndex, port: Port, isTrunk: boolean): Suspect[] {
  const name = nameOf(index, "port", port.id);
  return wrongAt(index, port, name, isTrunk)
    .filter(({ isPossible }) => isPossible)
    .map(({ key, words, mend, patch }) => ({
      ...edited(
        {
          id: `${key} ${port.id}`,
          kind: "guard",
          words,
          mend,
          subjects: [{ kind: "port", id: port.id }],
          seenAt: [{ on: "device", device: port.device }],
        },
        (edits) =>
          edits.patch("port", port.id, { guards: { ...edits.need("port", port.id).guards, ...patch } }),
      ),
      // Only between gear that both speak the protocol; else nobody sends what the guard waits for.
      triesLike: key === "bpdu" ? likeCableOut(index, port) : null,
    }));
}
