import type { Host, SignIn } from "../plan";

/** One thing that goes on at a port, in seconds from link up. */
export interface Span {
  readonly from: number;
  readonly to: number;
  readonly what: string;
  readonly kind: "asks" | "server" | "in";
}

/** From link up to network, for one who is plugged in. */
export interface Timeline {
  readonly spans: readonly Span[];
  /** After how many seconds it has its network; null where it never gets one. */
  readonly ready: number | null;
  /** "3 x 30 s asked + 1 s at the server = 91 s". */
  readonly sum: string;
}

/** What decides about time at a port. */
export interface TimeAsked {
  readonly profile: SignIn;
  /** Whether it signs in by itself. */
  readonly speaks: boolean;
  /** Whether a server that answers knows its MAC address. */
  readonly isKnown: boolean;
  /** How many servers are asked in vain before one answers; all of them: none does. */
  readonly silent: number;
}

/** How long a server that is there is taken to need. */
const ANSWER_SECONDS = 1;

/** Puts spans one behind the other. */
class Clock {
  readonly spans: Span[] = [];
  readonly terms: string[] = [];
  now = 0;

  add(seconds: number, what: string, kind: Span["kind"]): void {
    this.spans.push({ from: this.now, to: this.now + seconds, what, kind });
    this.now += seconds;
  }
}

/** The device is asked until it counts as unable to sign in. */
function askDevice(clock: Clock, { waitSeconds, tries }: SignIn["timers"]): void {
  for (let at = 1; at <= tries; at += 1) clock.add(waitSeconds, `asks, ${at} of ${tries}`, "asks");
  clock.terms.push(`${tries} x ${waitSeconds} s asked`);
}

/** The servers are asked, one after the other; whether one answers. */
function askServers(clock: Clock, { profile, silent }: TimeAsked): boolean {
  const { serverSeconds, serverTries } = profile.timers;
  const vain = Math.min(silent, profile.servers.length);
  for (let at = 1; at <= vain; at += 1)
    clock.add(serverSeconds * serverTries, `server ${at} does not answer`, "server");
  if (vain > 0)
    clock.terms.push(`${vain > 1 ? `${vain} x ` : ""}${serverTries} x ${serverSeconds} s for a server`);
  if (vain >= profile.servers.length) return false;
  clock.add(ANSWER_SECONDS, "at the server", "server");
  clock.terms.push(`${ANSWER_SECONDS} s at the server`);
  return true;
}

type End = "in" | "out";

/** What becomes of one that does not sign in once it was asked, or before where its MAC address comes first. */
function unable(clock: Clock, asked: TimeAsked): End {
  const { profile, isKnown } = asked;
  const { byMac, order, visitors, failed, serverDown, timers } = profile;
  const isMacFirst = byMac && order === "macFirst";
  if (!isMacFirst) askDevice(clock, timers);
  if (!byMac) return visitors === null ? "out" : "in";
  if (!askServers(clock, asked)) return serverDown === null ? "out" : "in";
  if (isKnown) return "in";
  if (isMacFirst) askDevice(clock, timers);
  return failed === null ? "out" : "in";
}

function signsIn(clock: Clock, asked: TimeAsked): End {
  return askServers(clock, asked) || asked.profile.serverDown !== null ? "in" : "out";
}

/**
 * From link up to network by a profile's timers. At the stage watch everybody has it at once; one that signs in
 * answers as soon as it is asked.
 */
export function timeline(asked: TimeAsked): Timeline {
  const clock = new Clock();
  if (asked.profile.stage === "watch")
    return { spans: [], ready: 0, sum: "At the stage watch the port is open at once." };
  const end = asked.speaks ? signsIn(clock, asked) : unable(clock, asked);
  const sum = clock.terms.length === 0 ? "0 s" : `${clock.terms.join(" + ")} = ${clock.now} s`;
  return { spans: clock.spans, ready: end === "in" ? clock.now : null, sum };
}

/**
 * How long a device goes on asking for an address before it rests until it is switched off and on: four
 * questions with 4, 8, 16 and 32 s between (RFC 2131 section 4.1). Null for those that never rest.
 */
export function patience({ kind, manner }: Host): number | null {
  const rests: readonly Host["kind"][] = [
    "printer",
    "scanner",
    "camera",
    "recorder",
    "cardTerminal",
    "doorController",
    "sensor",
    "imaging",
    "operatorPanel",
    "drive",
    "ioIsland",
    "controller",
  ];
  return manner !== "typed" && rests.includes(kind) ? 4 + 8 + 16 + 32 : null;
}

/** The same profile, asking twice for 10 s: enough for what signs in, and short for what does not. */
export const QUICK = { tries: 2, waitSeconds: 10 } as const;
export const quicker = (profile: SignIn): SignIn => ({
  ...profile,
  timers: { ...profile.timers, ...QUICK },
});
