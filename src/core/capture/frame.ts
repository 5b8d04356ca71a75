import type { Message } from "../probe";
import type { Tag } from "../fabric";
import type { Marks } from "../policy";
import { addressBytes, big, macBytes, type Bytes } from "./bytes";
import { dhcpPacket } from "./dhcp";
import { packetBytes } from "./internet";
import { advertisementPacket, neighbourPacket } from "./neighbours";

const ALL = [0xff, 0xff, 0xff, 0xff, 0xff, 0xff];
const TYPE = { ipv4: 0x0800, arp: 0x0806, tag: 0x8100, ipv6: 0x86dd } as const;
/** The shortest frame without its check sequence (IEEE 802.3 section 3.2.8). */
const SHORTEST = 60;

/**
 * A frame on a wire: addresses, the tag (IEEE 802.1Q section 9) if it bears one, the payload; filled up to
 * the shortest that there is.
 */
function frameBytes(
  to: Bytes,
  from: Bytes,
  {
    tag,
    type,
    payload,
    pcp = 0,
  }: { readonly tag: Tag; readonly type: number; readonly payload: Bytes; readonly pcp?: number },
): number[] {
  const frame = [
    ...to,
    ...from,
    // The priority stands before the VLAN ID, in the upper three bits (IEEE 802.1Q section 9.6).
    ...(tag === null ? [] : [...big(TYPE.tag, 2), ...big(pcp * 8192 + tag, 2)]),
    ...big(type, 2),
    ...payload,
  ];
  return [...frame, ...Array.from({ length: Math.max(0, SHORTEST - frame.length) }, () => 0)];
}

/**
 * A message of an exchange as the frame that crosses a wire with a tag or without; `number` tells packets of
 * one sender apart, `marks` are what its packet bears there.
 */
export function messageFrame(
  { from, to, content }: Message,
  tag: Tag,
  number: number,
  { dscp, pcp }: Marks,
): number[] {
  const [source, goal] = [macBytes(from), to === null ? ALL : macBytes(to)];
  switch (content.kind) {
    case "arp": {
      const target = content.targetMac === null ? [0, 0, 0, 0, 0, 0] : macBytes(content.targetMac);
      return frameBytes(goal, source, {
        tag,
        type: TYPE.arp,
        payload: [
          0,
          1,
          ...big(TYPE.ipv4, 2),
          6,
          4,
          0,
          content.asks ? 1 : 2,
          ...macBytes(content.senderMac),
          ...addressBytes(content.senderAddress),
          ...target,
          ...addressBytes(content.targetAddress),
        ],
      });
    }
    case "dhcp":
      return frameBytes(goal, source, { tag, type: TYPE.ipv4, payload: dhcpPacket(content, number) });
    case "neighbour": {
      const { packet, to: group } = neighbourPacket(content, to);
      return frameBytes(group, source, { tag, type: TYPE.ipv6, payload: packet });
    }
    case "advertisement": {
      const { packet, to: group } = advertisementPacket(content);
      return frameBytes(group, source, { tag, type: TYPE.ipv6, payload: packet });
    }
    case "packet":
      return frameBytes(goal, source, {
        tag,
        pcp,
        type: content.packet.family === 4 ? TYPE.ipv4 : TYPE.ipv6,
        payload: packetBytes(content.packet, content.isAnswer, content.ttl, { number, dscp }),
      });
  }
}
