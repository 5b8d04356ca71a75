import type { Host, Purpose } from "../plan";

/** A kind of thing that the survey counts. */
export interface DeviceKind {
  readonly word: string;
  readonly aliases: readonly string[];
  readonly base: Host["kind"];
  readonly purpose: Purpose;
  readonly manner: Host["manner"];
  readonly wireless: boolean;
  /** Class of IEEE 802.3 section 145.2.8; null when it takes no power over the cable. */
  readonly poeClass: number | null;
  /** Typical bandwidth. */
  readonly kbps: number;
  readonly speaksDhcp: boolean;
  /** Signs in by IEEE 802.1X. */
  readonly speaksSignIn: boolean;
  readonly internet: "may" | "never";
  /**
   * host: an end device; pair: a phone with a PC behind it, two devices on one socket; crowd: counted, never
   * in the register; socket: a socket without a device; point and switch: gear; gear: gear with an address of
   * its own and nothing else.
   */
  readonly role: "host" | "pair" | "crowd" | "socket" | "point" | "switch" | "gear";
}

interface Rest {
  readonly aliases?: string;
  readonly manner?: Host["manner"];
  readonly wireless?: true;
  readonly poe?: number;
  readonly kbps?: number;
  readonly noDhcp?: true;
  readonly signIn?: true;
  readonly never?: true;
  readonly role?: DeviceKind["role"];
}

export const kind = (word: string, base: Host["kind"], purpose: Purpose, rest: Rest = {}): DeviceKind => ({
  word,
  base,
  purpose,
  aliases: rest.aliases?.split(", ") ?? [],
  manner: rest.manner ?? "dynamic",
  wireless: rest.wireless ?? false,
  poeClass: rest.poe ?? null,
  kbps: rest.kbps ?? 1000,
  speaksDhcp: rest.noDhcp !== true,
  speaksSignIn: rest.signIn ?? false,
  internet: rest.never === true ? "never" : "may",
  role: rest.role ?? "host",
});
