import { formatIpv4, type Mac } from "../../address";
import { macOf, type Octets } from "../octets";
import { Contents, Rows, Senders, tagKey, type Budget, type Counts, type Tagged } from "../rows";

/** Who said that an address is theirs: how many frames by each MAC address. */
export interface ArpClaim extends Tagged {
  readonly ip: string;
  readonly macs: Counts;
}
export interface ArpDuplicate extends Tagged {
  readonly ip: string;
  readonly macs: readonly string[];
}
interface Gratuitous extends Tagged {
  readonly mac: Mac;
  readonly ip: string;
  readonly op: "request" | "reply";
}
interface ProbeSeen extends Tagged {
  readonly mac: Mac;
  readonly ip: string;
}
type Times<Content> = Content & { readonly frames: number };

export interface ArpFacts {
  readonly claims: readonly ArpClaim[];
  /** Two MAC addresses that claim one address in the same VLAN. */
  readonly duplicates: readonly ArpDuplicate[];
  /** Claims that nobody asked for: sender and target are the same. */
  readonly gratuitous: readonly Times<Gratuitous>[];
  /** Questions whether an address is free (RFC 5227): they claim nothing. */
  readonly probes: readonly Times<ProbeSeen>[];
}

const ETHERNET_IP4 = [1, 0x0800, 0x0604] as const;
const OPERATIONS: ReadonlyMap<number, "request" | "reply"> = new Map([
  [1, "request"],
  [2, "reply"],
]);

/** Address resolution over Ethernet (RFC 826). */
export class ArpHeard {
  readonly #budget: Budget;
  readonly #claims: Rows<{ readonly tagged: Tagged; readonly ip: string; readonly macs: Senders }>;
  readonly #gratuitous: Contents<Gratuitous>;
  readonly #probes: Contents<ProbeSeen>;
  #frames = 0;

  constructor(budget: Budget) {
    this.#budget = budget;
    this.#claims = new Rows(budget);
    this.#gratuitous = new Contents(budget);
    this.#probes = new Contents(budget);
  }

  add(tagged: Tagged, packet: Octets): void {
    const op = OPERATIONS.get(packet.u16(6));
    const isKnown = ETHERNET_IP4.every((value, at) => packet.u16(at * 2) === value);
    if (!packet.has(0, 28) || !isKnown || op === undefined) return;
    this.#frames += 1;
    const [sender, target] = [packet.address4(14), packet.address4(24)];
    const mac = packet.u48(8);
    if (Number(sender) === 0) {
      if (op === "request") this.#probes.add({ ...tagged, mac: macOf(mac), ip: formatIpv4(target) });
      return;
    }
    const ip = formatIpv4(sender);
    if (sender === target) this.#gratuitous.add({ ...tagged, mac: macOf(mac), ip, op });
    const claim = this.#claims.at(`${tagKey(tagged)} ${ip}`, () => ({
      tagged,
      ip,
      macs: new Senders(this.#budget),
    }));
    claim?.macs.add(mac);
  }

  facts(): ArpFacts | undefined {
    if (this.#frames === 0) return undefined;
    const claims = this.#claims.all().map(({ tagged, ip, macs }) => ({ ...tagged, ip, macs: macs.counts() }));
    return {
      claims,
      duplicates: claims
        .map((claim) => ({ ...claim, macs: Object.keys(claim.macs).sort() }))
        .filter(({ macs }) => macs.length > 1),
      gratuitous: this.#gratuitous.all(),
      probes: this.#probes.all(),
    };
  }
}
