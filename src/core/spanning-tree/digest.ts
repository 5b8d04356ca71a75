import { hexOf, hmacMd5 } from "../kernel";
import type { Device } from "../plan";
import { treeByVid } from "./region";

/** The key that all bridges share (IEEE 802.1Q table 13-1). */
const KEY = Uint8Array.from([
  0x13, 0xac, 0x06, 0xa6, 0x2e, 0x47, 0xfd, 0x51, 0xf9, 0x5d, 0x2b, 0xa2, 0x43, 0xcd, 0x03, 0x46,
]);
const VIDS = 4096;

/** Maps stay the same value as long as nobody changes them, and are asked for again and again. */
const KNOWN = new WeakMap<Device["tree"]["instances"], string>();

/**
 * The configuration digest of a region's map (IEEE 802.1Q section 13.8): 32 hexadecimal digits, as a bridge
 * shows it, over the instance of every VLAN ID from 0 to 4095 in two octets each.
 */
export function configurationDigest(device: Pick<Device, "tree">): string {
  const known = KNOWN.get(device.tree.instances);
  if (known !== undefined) return known;
  const table = new DataView(new ArrayBuffer(VIDS * 2));
  for (const [vid, instance] of treeByVid(device)) table.setUint16(vid * 2, instance);
  const digest = hexOf(hmacMd5(KEY, new Uint8Array(table.buffer)));
  KNOWN.set(device.tree.instances, digest);
  return digest;
}
