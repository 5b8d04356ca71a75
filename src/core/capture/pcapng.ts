import { little, utf8, type Bytes } from "./bytes";
import type { SeenFrame } from "./listen";

const BLOCK = { section: 0x0a0d0d0a, interface: 1, packet: 6 } as const;
const OPTION = { comment: 1, interfaceName: 2, application: 4 } as const;
const ETHERNET = 1;

const padded = (bytes: Bytes): number[] => [
  ...bytes,
  ...Array.from({ length: (4 - (bytes.length % 4)) % 4 }, () => 0),
];
const option = (code: number, text: string): number[] => {
  const value = utf8(text);
  return [...little(code, 2), ...little(value.length, 2), ...padded(value)];
};
const END = [0, 0, 0, 0];

function block(type: number, body: Bytes): number[] {
  const length = little(12 + body.length, 4);
  return [...little(type, 4), ...length, ...body, ...length];
}

/**
 * A capture file (the pcapng format of the IETF's opsawg working group) of what was seen at one place:
 * Ethernet frames with microsecond times, each with a comment that says what it is. `startMs` is the instant
 * of the first, in ms since 1970.
 */
export function pcapng(frames: readonly SeenFrame[], place: string, startMs: number): Uint8Array {
  const section = block(BLOCK.section, [
    ...little(0x1a2b3c4d, 4),
    ...little(1, 2),
    ...little(0, 2),
    ...Array.from({ length: 8 }, () => 0xff),
    ...option(OPTION.application, "Dianome: what should be seen"),
    ...END,
  ]);
  const seenAt = block(BLOCK.interface, [
    ...little(ETHERNET, 2),
    0,
    0,
    ...little(0, 4),
    ...option(OPTION.interfaceName, place),
    ...END,
  ]);
  const packets = frames.map(({ ms, what, bytes }) => {
    const micros = BigInt(Math.round(startMs + ms)) * 1000n;
    return block(BLOCK.packet, [
      ...little(0, 4),
      ...little(micros / 4_294_967_296n, 4),
      ...little(micros % 4_294_967_296n, 4),
      ...little(bytes.length, 4),
      ...little(bytes.length, 4),
      ...padded(bytes),
      ...option(OPTION.comment, what),
      ...END,
    ]);
  });
  return Uint8Array.from([...section, ...seenAt, ...packets.flat()]);
}
