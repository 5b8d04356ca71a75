import { formatAddress } from "../../address";
import type { Carried, Udp } from "../packets";
import type { Octets } from "../octets";
import {
  addTo,
  Contents,
  countIn,
  countsOf,
  Rows,
  tagKey,
  type Budget,
  type Counts,
  type Tagged,
} from "../rows";

/** What a server said to whoever asked for a user. */
interface RadiusReply {
  readonly code: string;
  /** Of the request that it answers; null where that was not heard. */
  readonly user: string | null;
  /** The VLAN that is assigned (RFC 3580 section 3.31). */
  readonly tunnelPrivateGroupId?: string;
  readonly tunnelType?: string;
  readonly tunnelMediumType?: string;
}
export interface RadiusFact extends Tagged {
  readonly client: string;
  readonly server: string;
  readonly messages: Counts;
  readonly users: readonly string[];
  readonly replyAttributes: readonly (RadiusReply & { readonly frames: number })[];
}

/** RFC 2865 section 3, RFC 5176 section 2.3; the ports of old and new. */
const CODES: ReadonlyMap<number, string> = new Map([
  [1, "access-request"],
  [2, "access-accept"],
  [3, "access-reject"],
  [4, "accounting-request"],
  [5, "accounting-response"],
  [11, "access-challenge"],
  [40, "disconnect-request"],
  [41, "disconnect-ack"],
  [42, "disconnect-nak"],
  [43, "coa-request"],
  [44, "coa-ack"],
  [45, "coa-nak"],
]);
export const RADIUS_PORTS: ReadonlySet<number> = new Set([1812, 1813, 1645, 1646]);
const REQUEST = 1;
const DECIDED: ReadonlySet<number> = new Set([2, 3]);
const ATTRIBUTE = { user: 1, tunnelType: 64, tunnelMedium: 65, tunnelGroup: 81 } as const;
const HEAD = 20;
const MOST_ATTRIBUTES = 250;

/** The attributes of a message by their number, the first of each (RFC 2865 section 5). */
function attributesOf(message: Octets): Map<number, Octets> {
  const found = new Map<number, Octets>();
  for (let at = HEAD, i = 0; message.has(at, 2) && i < MOST_ATTRIBUTES; i += 1) {
    const [type, length] = [message.u8(at), message.u8(at + 1)];
    if (length < 2 || !message.has(at, length)) break;
    if (!found.has(type)) found.set(type, message.from(at + 2, length - 2));
    at += length;
  }
  return found;
}

/** The first octet may be a number that groups attributes of one tunnel (RFC 2868 section 3.6). */
const groupText = (value: Octets): string => (value.u8(0) <= 0x1f ? value.from(1) : value).text();
const tunnelNumber = (value: Octets): string => String(value.u32(0) % 2 ** 24);

function replyOf(code: string, user: string | null, found: ReadonlyMap<number, Octets>): RadiusReply {
  const group = found.get(ATTRIBUTE.tunnelGroup);
  const type = found.get(ATTRIBUTE.tunnelType);
  const medium = found.get(ATTRIBUTE.tunnelMedium);
  return {
    code,
    user,
    ...(group === undefined ? {} : { tunnelPrivateGroupId: groupText(group) }),
    ...(type === undefined ? {} : { tunnelType: tunnelNumber(type) }),
    ...(medium === undefined ? {} : { tunnelMediumType: tunnelNumber(medium) }),
  };
}

interface Pair {
  readonly head: { readonly client: string; readonly server: string } & Tagged;
  readonly messages: Map<string, number>;
  readonly users: string[];
  /** By port and identifier of the request, for whom it asked: at most 256 for each port. */
  readonly asked: Rows<{ user: string | null }>;
  readonly replies: Contents<RadiusReply>;
}

/** What gear asks of the server that knows who may sign in (RFC 2865). */
export class RadiusHeard {
  readonly #budget: Budget;
  readonly #pairs: Rows<Pair>;

  constructor(budget: Budget) {
    this.#budget = budget;
    this.#pairs = new Rows(budget);
  }

  add(tagged: Tagged, carried: Carried, { from, to, payload }: Udp): void {
    const code = payload.u8(0);
    const name = CODES.get(code);
    if (name === undefined || !payload.has(0, HEAD)) return;
    const isToServer = RADIUS_PORTS.has(to);
    const [src, dst] = [formatAddress(carried.src()), formatAddress(carried.dst())];
    const [client, server] = isToServer ? [src, dst] : [dst, src];
    const pair = this.#pairs.at(`${tagKey(tagged)} ${client} ${server}`, () => ({
      head: { ...tagged, client, server },
      messages: new Map(),
      users: [],
      asked: new Rows(this.#budget),
      replies: new Contents(this.#budget),
    }));
    if (pair === null) return;
    countIn(pair.messages, name);
    const found = attributesOf(payload.from(0, payload.u16(2)));
    const key = `${isToServer ? from : to} ${payload.u8(1)}`;
    if (code === REQUEST) {
      const user = found.get(ATTRIBUTE.user)?.text() ?? null;
      if (user !== null) addTo(pair.users, user);
      const asked = pair.asked.at(key, () => ({ user }));
      if (asked !== null) asked.user = user;
    }
    if (DECIDED.has(code)) pair.replies.add(replyOf(name, pair.asked.get(key)?.user ?? null, found));
  }

  facts(): readonly RadiusFact[] | undefined {
    const all = this.#pairs.all();
    if (all.length === 0) return undefined;
    return all.map(({ head, messages, users, replies }) => ({
      ...head,
      messages: countsOf(messages),
      users,
      replyAttributes: replies.all(),
    }));
  }
}
