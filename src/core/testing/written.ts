// Addresses and numbers as a test writes them: what is none is a bug of the test.
import {
  asPrefix4,
  asPrefix6,
  parseIpv4,
  parseIpv6,
  parseMac,
  parsePrefix,
  type Ipv4,
  type Ipv6,
  type Mac,
  type Prefix,
  type Prefix4,
  type Prefix6,
} from "../address";
import { must } from "../kernel";
import { vid, type Vid } from "../plan";

export const ip = (text: string): Ipv4 => must(parseIpv4(text), text);
export const ip6 = (text: string): Ipv6 => must(parseIpv6(text), text);
export const prefix = (text: string): Prefix => must(parsePrefix(text), text);
export const net = (text: string): Prefix4 => must(asPrefix4(parsePrefix(text)), text);
export const net6 = (text: string): Prefix6 => must(asPrefix6(parsePrefix(text)), text);
export const mac = (text: string): Mac => must(parseMac(text), text);
export const v = (number: number): Vid => must(vid(number), `${number}`);
