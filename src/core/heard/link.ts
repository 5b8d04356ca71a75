import type { CapturedFrame } from "./container";
import type { MacNumber, Octets } from "./octets";

/** EtherTypes of tags: C-tag and S-tag (IEEE 802.1Q table 9-1), and what was used before S-tags. */
const TAGS: ReadonlySet<number> = new Set([0x8100, 0x88a8, 0x9100]);
/** As many tags are read; nobody stacks more than two or three. */
const MOST_TAGS = 8;
/** Smaller is a length, and a logical link header follows (IEEE 802.3 clause 3.2.6). */
const LEAST_TYPE = 0x600;

export const TYPE = {
  ip4: 0x0800,
  arp: 0x0806,
  ip6: 0x86dd,
  eapol: 0x888e,
  lldp: 0x88cc,
} as const;

/** A VLAN tag. */
export interface SeenTag {
  readonly tpid: number;
  /** 0 is a priority tag: of no VLAN (IEEE 802.1Q table 9-2). */
  readonly vid: number;
}

/** A frame's head. */
export interface Heading {
  /** The first is the outer one. */
  readonly tags: readonly SeenTag[];
  /** Null where the file holds none: frames heard at every interface of a machine at once. */
  readonly to: MacNumber | null;
  readonly from: MacNumber;
  readonly isGroup: boolean;
  /** Its EtherType; null where a logical link header follows. */
  readonly type: number | null;
  readonly payload: Octets;
}

/** Kinds of frames that are read: Ethernet, and what Linux makes of it where it hears all interfaces. */
const ETHERNET = 1;
const COOKED = 113;
const COOKED_2 = 276;
/** In cooked captures: the frame begins with a logical link header. */
const LLC_FOLLOWS = 4;

/** Where the parts of a head stand, by the kind of frame: `to` is null where it does not stand there. */
interface Form {
  readonly to: number | null;
  readonly from: number;
  readonly type: number;
  readonly body: number;
  readonly isCooked: boolean;
  readonly isGroup: (octets: Octets) => boolean;
}

/** Packet types of cooked captures: 1 is broadcast, 2 another group. */
const isGroupKind = (kind: number): boolean => kind === 1 || kind === 2;

const FORMS: ReadonlyMap<number, Form> = new Map([
  [
    ETHERNET,
    {
      to: 0,
      from: 6,
      type: 12,
      body: 14,
      isCooked: false,
      isGroup: (octets: Octets) => octets.u8(0) % 2 === 1,
    },
  ],
  [
    COOKED,
    {
      to: null,
      from: 6,
      type: 14,
      body: 16,
      isCooked: true,
      isGroup: (octets: Octets) => isGroupKind(octets.u16(0)),
    },
  ],
  [
    COOKED_2,
    {
      to: null,
      from: 12,
      type: 0,
      body: 20,
      isCooked: true,
      isGroup: (octets: Octets) => isGroupKind(octets.u8(10)),
    },
  ],
]);

const NO_TAGS: readonly SeenTag[] = [];

/** The tags of a frame, up to its type; null where one was cut off, which may be of any VLAN. */
function tagsAt(
  octets: Octets,
  typeAt: number,
  bodyAt: number,
): { tags: SeenTag[]; type: number; at: number } | null {
  const tags: SeenTag[] = [];
  let [type, at] = [octets.u16(typeAt), bodyAt];
  while (TAGS.has(type)) {
    if (!octets.has(at, 4) || tags.length === MOST_TAGS) return null;
    tags.push({ tpid: type, vid: octets.u16(at) % 4096 });
    type = octets.u16(at + 2);
    at += 4;
  }
  return { tags, type, at };
}

/**
 * A frame's head; null where too little of it is there, or its kind is not read. Millions are asked for: no
 * object is made that is not handed out.
 */
export function headingOf({ octets, linkType }: CapturedFrame): Heading | null {
  const form = FORMS.get(linkType);
  if (form === undefined || !octets.has(0, form.body)) return null;
  let [tags, type, at] = [NO_TAGS, octets.u16(form.type), form.body];
  if (TAGS.has(type)) {
    const tagged = tagsAt(octets, form.type, form.body);
    if (tagged === null) return null;
    ({ tags, type, at } = tagged);
  }
  const isLlc = type < LEAST_TYPE;
  const length = isLlc && !(form.isCooked && type === LLC_FOLLOWS) ? type : octets.length;
  return {
    tags,
    to: form.to === null ? null : octets.u48(form.to),
    from: octets.u48(form.from),
    isGroup: form.isGroup(octets),
    type: isLlc ? null : type,
    payload: octets.from(at, length),
  };
}
