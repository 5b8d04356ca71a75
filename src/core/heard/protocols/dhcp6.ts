import { formatAddress, type Address, type Mac } from "../../address";
import { macOf, type MacNumber, type Octets } from "../octets";
import { addTo, countIn, countsOf, Rows, tagKey, type Budget, type Counts, type Tagged } from "../rows";

/** Somebody who answers. */
export interface Dhcp6Server extends Tagged {
  readonly mac: Mac;
  readonly address: string;
  readonly messages: Counts;
  readonly addresses: readonly string[];
  readonly dns: readonly string[];
}
export interface Dhcp6Client extends Tagged {
  readonly mac: Mac;
  readonly address: string;
  readonly messages: Counts;
}
export interface Dhcp6Facts {
  readonly servers: readonly Dhcp6Server[];
  readonly clients: readonly Dhcp6Client[];
}

/** Types of messages (RFC 8415 section 7.3), and which side sends each. */
const TYPES: ReadonlyMap<number, readonly [name: string, isServer: boolean]> = new Map([
  [1, ["solicit", false]],
  [2, ["advertise", true]],
  [3, ["request", false]],
  [4, ["confirm", false]],
  [5, ["renew", false]],
  [6, ["rebind", false]],
  [7, ["reply", true]],
  [8, ["release", false]],
  [9, ["decline", false]],
  [10, ["reconfigure", true]],
  [11, ["information-request", false]],
  [12, ["relay-forward", false]],
  [13, ["relay-reply", true]],
]);
const OPTION = { addresses: 3, temporary: 4, address: 5, dns: 23, prefixes: 25, prefix: 26 } as const;
/** Where the options inside an option begin, by its code: after identifier and times. */
const INSIDE: ReadonlyMap<number, number> = new Map([
  [OPTION.addresses, 12],
  [OPTION.temporary, 4],
  [OPTION.prefixes, 12],
]);
const MOST_OPTIONS = 200;

interface Given {
  readonly addresses: string[];
  readonly dns: string[];
}

/** Options, and those inside of them (RFC 8415 section 21). */
function readOptions(field: Octets, given: Given, depth = 0): void {
  for (let at = 0, i = 0; field.has(at, 4) && i < MOST_OPTIONS; i += 1) {
    const [code, length] = [field.u16(at), field.u16(at + 2)];
    const value = field.from(at + 4, length);
    const inside = INSIDE.get(code);
    if (inside !== undefined && depth === 0) readOptions(value.from(inside), given, 1);
    if (code === OPTION.address && value.has(0, 16)) addTo(given.addresses, formatAddress(value.address6(0)));
    if (code === OPTION.prefix && value.has(0, 25))
      addTo(given.addresses, `${formatAddress(value.address6(9))}/${value.u8(8)}`);
    if (code === OPTION.dns) for (const address of value.addresses6(0)) addTo(given.dns, address);
    at += 4 + length;
  }
}

interface Row {
  readonly head: { readonly mac: Mac; readonly address: string } & Tagged;
  readonly messages: Map<string, number>;
  readonly given: Given;
}

/** DHCP for IPv6: who asks, who answers. */
export class Dhcp6Heard {
  readonly #servers: Rows<Row>;
  readonly #clients: Rows<Row>;

  constructor(budget: Budget) {
    this.#servers = new Rows(budget);
    this.#clients = new Rows(budget);
  }

  add(tagged: Tagged, from: MacNumber, source: Address, body: Octets): void {
    const type = TYPES.get(body.u8(0));
    if (type === undefined) return;
    const [name, isServer] = type;
    const rows = isServer ? this.#servers : this.#clients;
    const row = rows.at(`${tagKey(tagged)} ${from}`, () => ({
      head: { ...tagged, mac: macOf(from), address: formatAddress(source) },
      messages: new Map(),
      given: { addresses: [], dns: [] },
    }));
    if (row === null) return;
    countIn(row.messages, name);
    if (isServer) readOptions(body.from(4), row.given);
  }

  facts(): Dhcp6Facts | undefined {
    const [servers, clients] = [this.#servers.all(), this.#clients.all()];
    if (servers.length + clients.length === 0) return undefined;
    return {
      servers: servers.map(({ head, messages, given }) => ({
        ...head,
        messages: countsOf(messages),
        ...given,
      })),
      clients: clients.map(({ head, messages }) => ({ ...head, messages: countsOf(messages) })),
    };
  }
}
