import type { Mac } from "../address";
import type { HeardFile } from "../heard";

/** Where one listens. */
export type TapPosition = "access" | "trunk" | "mirror" | "own" | "inline";

export const TAP_WORDS: Readonly<Record<TapPosition, string>> = {
  access: "an ordinary port",
  trunk: "a trunk port",
  mirror: "a mirror port: it shows what others say to each other",
  own: "an ordinary port, with a laptop that talks itself",
  inline: "the cable itself, or a hub in it",
};

/** A tap, and the MAC address that listens; null where nobody said. */
export interface Tap {
  readonly position: TapPosition;
  readonly mac: Mac | null;
}

/** Stations that answer for all: they have talks with everybody, wherever one listens. */
const serving = ({ facts }: HeardFile): ReadonlySet<string> =>
  new Set([...(facts.dhcp?.servers ?? []), ...(facts.ra ?? [])].map(({ mac }) => mac));

/**
 * Where the tap sat, by what is in the file: talks in both directions that all have one client in common were
 * its own; other talks are a mirror's; tags make it a trunk. A guess, to be said and corrected.
 */
export function guessTap(heard: HeardFile): Tap {
  const { tags, traffic } = heard.facts;
  const isTagged = tags.some(({ vid }) => vid !== null && vid !== 0);
  const pairs = new Set(traffic.unicast.map(({ src, dst }) => `${src} ${dst}`));
  const talks = traffic.unicast.filter(({ src, dst }) => pairs.has(`${dst} ${src}`));
  if (talks.length === 0) return { position: isTagged ? "trunk" : "access", mac: null };
  const servers = serving(heard);
  const own = talks
    .flatMap(({ src, dst }) => [src, dst])
    .find((mac) => !servers.has(mac) && traffic.unicast.every(({ src, dst }) => src === mac || dst === mac));
  return own === undefined || isTagged ? { position: "mirror", mac: null } : { position: "own", mac: own };
}
