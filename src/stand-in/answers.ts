import { timingSafeEqual } from "node:crypto";
import { formatAddress, parseMac, type Mac } from "@/core/address";
import { serverAnswer, type ServerAnswer, type SigningIn } from "@/core/guards";
import type { PlanIndex } from "@/core/plan";
import { asLabel } from "@/core/planners";
import { revealed } from "./authenticators";
import {
  ATTRIBUTES,
  CODES,
  numberAttribute,
  textAttribute,
  valueOf,
  type Attribute,
  type Packet,
} from "./packet";

/**
 * What a server knows beside the plans: the secret it shares with switches, and the password of all accounts.
 */
export interface Words {
  readonly secret: string;
  readonly password: string;
}

/** Service types (RFC 2865 section 5.6): call check is a sign-in by MAC address. */
const CALL_CHECK = 10;

const isEqual = (a: string, b: string): boolean => {
  const [left, right] = [Buffer.from(a), Buffer.from(b)];
  return left.length === right.length && timingSafeEqual(left, right);
};

/** Who asks, or a sentence why it is not even asked for. */
function signingIn(packet: Packet, { secret, password }: Words): SigningIn | string {
  const name = valueOf(packet, ATTRIBUTES.userName)?.toString("utf8") ?? "";
  const hidden = valueOf(packet, ATTRIBUTES.userPassword);
  const type = valueOf(packet, ATTRIBUTES.serviceType);
  const mac: Mac | null = parseMac(name);
  const said = hidden === undefined ? null : revealed(hidden, packet.authenticator, secret);
  if (said === null && !(mac !== null && type?.length === 4 && type.readUInt32BE(0) === CALL_CHECK))
    return "no password that can be read";
  if (mac !== null && (said === null || parseMac(said) === mac)) return { by: "mac", mac };
  return said !== null && isEqual(said, password) ? { by: "name", name } : "wrong password";
}

/**
 * A site by the device that asks: the name or the address that it says it has; else the only one with a
 * sign-in.
 */
export function siteOf(indexes: readonly PlanIndex[], packet: Packet): PlanIndex | null {
  const name = valueOf(packet, ATTRIBUTES.nasIdentifier)?.toString("utf8").toLowerCase();
  const bytes = valueOf(packet, ATTRIBUTES.nasAddress);
  const address = bytes?.length === 4 ? [...bytes].join(".") : "";
  const own = indexes.find(
    ({ plan }) =>
      [...plan.device.values()].some((device) =>
        [device.name, asLabel(device.name)].some((spelling) => spelling.toLowerCase() === name),
      ) ||
      [...plan.interface.values()].some(({ addresses4 }) =>
        addresses4.some((ipv4) => formatAddress(ipv4) === address),
      ),
  );
  const asking = indexes.filter(({ plan }) => plan.signIn.size > 0);
  return own ?? (asking.length === 1 ? (asking[0] ?? null) : null);
}

/**
 * The VLAN of an answer: as a tunnel for untagged frames (RFC 3580 section 3.31), as an egress VLAN for
 * tagged.
 */
export function vlanAttributes({ vid, isTagged }: Extract<ServerAnswer, { letsIn: true }>): Attribute[] {
  if (vid === null) return [];
  // RFC 4675 section 2.1: 0x31 is a tagged VLAN, and twelve bits name it.
  if (isTagged) return [numberAttribute(ATTRIBUTES.egressVlan, 0x3100_0000 + vid)];
  return [
    numberAttribute(ATTRIBUTES.tunnelType, 13),
    numberAttribute(ATTRIBUTES.tunnelMedium, 6),
    textAttribute(ATTRIBUTES.tunnelGroup, String(vid)),
  ];
}

/** What becomes of a request: the code and the attributes of the answer, and the answer itself. */
export interface Decided {
  readonly code: number;
  readonly attributes: readonly Attribute[];
  readonly answer: ServerAnswer;
}

/** What is answered to somebody who signs in. */
export function decide(indexes: readonly PlanIndex[], packet: Packet, words: Words): Decided {
  const asking = signingIn(packet, words);
  const index = siteOf(indexes, packet);
  if (typeof asking === "string" || index === null) {
    const why = typeof asking === "string" ? asking : "no site knows the device that asks";
    return { code: CODES.accessReject, attributes: [], answer: { letsIn: false, why } };
  }
  const answer = serverAnswer(index, asking);
  if (!answer.letsIn) return { code: CODES.accessReject, attributes: [], answer };
  const { againSeconds } = answer.profile.timers;
  // RFC 2865 section 5.29: 1 has it sign in anew when the session's time is over.
  const again =
    againSeconds === null
      ? []
      : [
          numberAttribute(ATTRIBUTES.sessionTimeout, againSeconds),
          numberAttribute(ATTRIBUTES.terminationAction, 1),
        ];
  return { code: CODES.accessAccept, attributes: [...vlanAttributes(answer), ...again], answer };
}
