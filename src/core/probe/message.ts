import type { Address, Mac } from "../address";
import type { Packet } from "../policy";
import type { Flood } from "../forwarding";
import type { Hearing } from "../places";

/** What a frame carries. */
export type Content =
  | {
      readonly kind: "arp";
      readonly asks: boolean;
      readonly senderMac: Mac;
      readonly senderAddress: Address;
      readonly targetMac: Mac | null;
      readonly targetAddress: Address;
    }
  | {
      readonly kind: "dhcp";
      readonly type: "discover" | "offer" | "request" | "ack";
      readonly client: Mac;
      readonly given: Address | null;
      readonly server: Address | null;
      readonly relay: Address | null;
      readonly maskBits: number;
      readonly router: Address | null;
      readonly dns: readonly Address[];
      readonly leaseSeconds: number;
      readonly domain: string;
    }
  | {
      readonly kind: "neighbour";
      readonly asks: boolean;
      readonly src: Address;
      readonly dst: Address;
      readonly target: Address;
      readonly mac: Mac;
    }
  | {
      readonly kind: "advertisement";
      readonly asks: boolean;
      readonly src: Address;
      readonly mac: Mac;
      readonly prefix: Address | null;
      readonly length: number;
      readonly managed: boolean;
      readonly selfMade: boolean;
    }
  | { readonly kind: "packet"; readonly packet: Packet; readonly isAnswer: boolean; readonly ttl: number };

/**
 * One frame as it is sent, and the wires it came over: everywhere a broadcast went, or the way of a frame to
 * one.
 */
export interface Message {
  readonly what: string;
  readonly from: Mac;
  /** null is for all. */
  readonly to: Mac | null;
  readonly content: Content;
  readonly flood: Flood;
  /** Where it was taken in; null for a broadcast, which goes everywhere. */
  readonly reached: Hearing | null;
}

/** The emissions of a message's flood that carried it. */
export function emissionsOf({
  flood,
  reached,
}: Pick<Message, "flood" | "reached">): readonly Flood["emissions"][number][] {
  if (reached === null) return flood.emissions;
  const way: Flood["emissions"][number][] = [];
  for (let at = flood.emission(reached.emission); at !== undefined;) {
    way.unshift(at);
    const arrival = at.after < 0 ? undefined : flood.arrivals[at.after];
    at = arrival === undefined ? undefined : flood.emission(arrival.emission);
  }
  return way;
}
