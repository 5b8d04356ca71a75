import { must } from "../kernel";
import { afterEdits, PlanEdits, PlanIndex, type Plan } from "../plan";
import { carryExactly } from "../planners";
import type { Suspect, SuspectKind } from "../diagnosis";
import type { Level } from "./complaint";

/** The sites whose copies the course is played in. */
export type CourseSite = "house" | "practice" | "works";

/** One drill of the course: what is planted, where, and what it teaches. */
export interface Lesson {
  /** Its place in the course, from 1. */
  readonly number: number;
  readonly title: string;
  readonly site: CourseSite;
  /** Whether every VLAN is made to be carried where it is used before the fault is planted. */
  readonly isCarried: boolean;
  readonly level: Level;
  /** What it teaches, in a few sentences. */
  readonly text: string;
  /** The standard, and where in it. */
  readonly standard: string;
  readonly accepts: (suspect: Suspect, index: PlanIndex) => boolean;
  /** Whether it is rung in by somebody who gets no address; null for anything. */
  readonly about: "address" | null;
}

type Told = Omit<Lesson, "number" | "isCarried" | "about"> & Partial<Pick<Lesson, "about">>;

const portsOf = ({ subjects }: Suspect): string[] =>
  subjects.flatMap(({ kind, id }) => (kind === "port" ? [id] : []));
/** Whether a fault is at ports where end devices are plugged in, not at those between gear. */
const atEndPorts = (suspect: Suspect, index: PlanIndex): boolean =>
  portsOf(suspect).every((id) => index.linkAt(id) === undefined);
const betweenGear = (suspect: Suspect, index: PlanIndex): boolean => !atEndPorts(suspect, index);
const kinds =
  (...wanted: SuspectKind[]) =>
  ({ kind }: Suspect): boolean =>
    wanted.includes(kind);
const ofKind =
  (kind: SuspectKind, also: Lesson["accepts"]): Lesson["accepts"] =>
  (suspect, index) =>
    suspect.kind === kind && also(suspect, index);
const LESSONS: readonly Told[] = [
  {
    title: "One PC gets no address",
    site: "practice",
    level: 1,
    text:
      "Begin at the bottom: without a link nothing above it can work. A laptop in the same socket tells " +
      "at once whether it is the device or the socket; the switch’s own page tells whether the port is " +
      "off.",
    standard: "IEEE 802.3 clause 28: a link needs a partner that answers at the other end.",
    about: "address",
    accepts: ofKind("portOff", atEndPorts),
  },
  {
    title: "The cable next door",
    site: "practice",
    level: 1,
    text:
      "What a port is set to is one thing, what is plugged into it another. When the settings are as " +
      "planned and the device still stands in the wrong place, follow the cable.",
    standard: "IEEE 802.1Q section 6.9.1: the port, not the device, says which VLAN an untagged frame is in.",
    accepts: ofKind("wrongPort", (suspect) => suspect.subjects.some(({ kind }) => kind === "host")),
  },
  {
    title: "The desk in the wrong VLAN",
    site: "practice",
    level: 2,
    text:
      "It has an address and the internet, so it seems well. But the address is that of another VLAN: " +
      "read it before you believe a light.",
    standard: "IEEE 802.1Q section 6.9.1: an untagged frame takes the PVID of the port where it comes in.",
    accepts: ofKind("untagged", atEndPorts),
  },
  {
    title: "The hop that was forgotten",
    site: "practice",
    level: 1,
    text:
      "A VLAN has to be carried on every hop, at both ends of each cable. Where all of one VLAN fail " +
      "behind one switch and others work there, it is the cable to that switch.",
    standard: "IEEE 802.1Q section 8.8.2: a port passes a VLAN on only where it is in its member set.",
    about: "address",
    accepts: ofKind("vlanMissing", betweenGear),
  },
  {
    title: "Native here, tagged there",
    site: "works",
    level: 1,
    text:
      "Both ends of a cable have to agree which VLAN goes without a tag. Where they don’t, one VLAN falls " +
      "silent or two run into one another, and each end looks right by itself.",
    standard: "IEEE 802.1Q section 8.8.2: member set and untagged set are the port’s own, one for each end.",
    accepts: (suspect, index) => kinds("tagging", "untagged")(suspect) && betweenGear(suspect, index),
  },
  {
    title: "The silent server",
    site: "house",
    level: 1,
    text:
      "Who already has an address keeps it for a while; who comes new gets none. If everybody of one " +
      "segment asks and nobody is answered, look at the server before you look at ports.",
    standard: "RFC 2131 section 4.1: a client that is not answered asks again, later and later.",
    about: "address",
    accepts: ({ kind, words }) => kind === "server" && words.includes(" is off on "),
  },
  {
    title: "The pool that is too short",
    site: "practice",
    level: 1,
    text:
      "A pool counts both of its ends, and what is left out counts too. A server without a free address " +
      "stays silent: from outside that is the same as a server that is off.",
    standard: "RFC 2131 section 4.3.1: how a server chooses an address, and what it does without one.",
    about: "address",
    accepts: kinds("pool"),
  },
  {
    title: "A second server",
    site: "house",
    level: 2,
    text:
      "A client takes the offer that it likes, mostly the first. An address that nobody has planned comes " +
      "from a box that nobody has planned: listen at the port, and follow its MAC address.",
    standard: "RFC 2131 section 3.1: a client may receive offers of several servers, and chooses.",
    accepts: kinds("secondServer"),
  },
  {
    title: "Yesterday’s address",
    site: "practice",
    level: 1,
    text:
      "A device with an address entered asks nobody. It brings its old one into every VLAN, and no " +
      "setting of a switch will change that: look on the device itself.",
    standard:
      "RFC 1122 section 3.3.1.1: mask and address decide what is asked of the gateway and what is not.",
    accepts: ({ kind, words }) => kind === "entered" && words.includes("another subnet"),
  },
  {
    title: "Two devices, one address",
    site: "practice",
    level: 2,
    text:
      "Two with one address answer in turns, and each works for a while. What an address answers for is " +
      "seen where its MAC address is learnt; a fixed address belongs outside the pool, and in the " +
      "register.",
    standard: "RFC 5227 section 2.4: how a conflict of addresses is noticed, and who gives way.",
    accepts: ({ kind, words }) => kind === "entered" && words.includes("the address of"),
  },
  {
    title: "A lease with the wrong gateway",
    site: "house",
    level: 2,
    text:
      "The address is right, the neighbours answer, the rest of the world does not. Read the whole lease, " +
      "not only its first line.",
    standard: "RFC 2132 section 3.5: the routers that a client is given.",
    accepts: ({ kind, words }) => kind === "given" && words.includes("gateway"),
  },
  {
    title: "Guests in the staff network",
    site: "practice",
    level: 2,
    text:
      "On the air a name looks as it always does, wherever it leads. What counts is the address that one " +
      "gets by it, at more than one access point.",
    standard:
      "IEEE 802.11 section 4.3: the distribution system joins what is on the air to a network on the wire.",
    accepts: ({ kind, words }) => kind === "wireless" && words.includes("leads into"),
  },
  {
    title: "The phone without its tag",
    site: "practice",
    level: 2,
    text:
      "A phone and a PC share a port: one with a tag, one without. Who loses the tag lands in the other’s " +
      "VLAN.",
    standard: "IEEE 802.1Q section 9.6: the tag carries the VLAN ID; without one the port decides.",
    accepts: ({ kind, words }) => kind === "tagging" && words.includes("sends without its tag"),
  },
  {
    title: "The door that is shut",
    site: "practice",
    level: 2,
    text:
      "The address is right, the internet works, one thing does not answer. Before you open anything: is " +
      "the door in the plan? A wall that does its job looks the same as one too many.",
    standard: "RFC 8519 section 4.1: entries of a list are taken in order, and the first that fits decides.",
    accepts: kinds("doorShut"),
  },
  {
    title: "The wall that is open",
    site: "works",
    level: 2,
    text:
      "Few ring in about what works too well. A wall is proven only by asking for what must not answer, " +
      "from each side.",
    standard: "RFC 8519 section 4.1: what no entry fits is decided by the default, which is to be said.",
    accepts: kinds("doorOpen"),
  },
  {
    title: "It is up, and does not answer",
    site: "practice",
    level: 2,
    text:
      "Silence to an echo is no proof: the far end may have a firewall of its own. Ask it from its own " +
      "segment, and ask for what it is there for.",
    standard: "RFC 1122 section 3.2.2.6: a host is to answer an echo; many are told not to.",
    accepts: kinds("ownFirewall"),
  },
  {
    title: "A guard that is too strict",
    site: "works",
    level: 1,
    text:
      "A guard that is switched on before it knows what it has to let through shuts out the server, the " +
      "printer or the next switch. Trust the way to the server first, then switch on.",
    standard: "RFC 3046 section 2.1: what comes in by a port that is not trusted is not believed.",
    accepts: kinds("guard"),
  },
  {
    title: "It restarted and forgot",
    site: "practice",
    level: 1,
    text:
      "What runs and what is saved are two things. After a power cut everything behind one device is gone " +
      "at once: read its page before you touch a cable.",
    standard: "RFC 8342 section 5.1.1: what a device starts with is a datastore of its own.",
    accepts: kinds("notSaved"),
  },
  {
    title: "Two at once",
    site: "practice",
    level: 3,
    text:
      "Two complaints are not always one fault. When no single fault explains everything that was seen, " +
      "stop looking for one: take each complaint by itself, and mend one thing at a time.",
    standard:
      "IEEE 802.1Q section 6.9.1 for who is in which VLAN, RFC 2131 section 4.3.1 for who gets which address.",
    accepts: kinds("untagged", "portOff", "pool", "server", "entered", "noVlan"),
  },
  {
    title: "The ring’s spare way",
    site: "works",
    level: 1,
    text:
      "A ring heals for those VLANs that its spare way carries. One cable was out, and most went on " +
      "working; what failed showed what the spare way lacks. Put the cable back, then carry every VLAN " +
      "all the way round: the plan itself has that hole.",
    standard:
      "IEEE 802.1Q clause 13: the tree opens the spare way; the member sets of its ports stay as they were " +
      "set.",
    accepts: ofKind("cable", betweenGear),
  },
];

/** The course, in the order of the job. */
export const COURSE: readonly Lesson[] = LESSONS.map((lesson, at) => ({
  about: null,
  ...lesson,
  number: at + 1,
  isCarried: at < LESSONS.length - 1,
}));

/**
 * A site of the course as its drill is played in it: with every VLAN where it is used, if that is the
 * drill's.
 */
export function trainingIndex(plan: Plan, { isCarried }: Pick<Lesson, "isCarried">): PlanIndex {
  const index = PlanIndex.of(plan);
  if (!isCarried) return index;
  const edits = new PlanEdits(plan);
  carryExactly(edits, index);
  return must(afterEdits(index, edits), "with every VLAN where it is used it is a plan");
}
