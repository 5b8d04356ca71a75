import { ipv4, type Ipv4 } from "../../address";
import { must } from "../../kernel";

/** The address in the other half of twice a block: one that somebody could have entered instead. */
const inOtherHalf = (address: Ipv4, block: number): Ipv4 =>
  must(ipv4(address % (2 * block) >= block ? address - block : address + block), "an address of 32 bits");

/** Of another subnet: what is left of a bench test, or of the network before. */
export const ofAnotherSubnet = (address: Ipv4): Ipv4 => inOtherHalf(address, 0x8000);
/** Of the same subnet, a few addresses on. */
export const nextTo = (address: Ipv4): Ipv4 => inOtherHalf(address, 2);
/** Of the same subnet, somewhat further on. */
export const furtherOn = (address: Ipv4): Ipv4 => inOtherHalf(address, 8);
