import { formatAddress, type Mac } from "../../address";
import { macOf } from "../octets";
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
import { addressOption, clientOf, nameOfClient, OPTION, relayInformation, type DhcpMessage } from "./dhcp";

/** What a server offered or gave. */
export interface Offer {
  readonly type: "offer" | "ack";
  readonly client: string;
  readonly address: string;
  readonly mask: string | null;
  readonly router: readonly string[];
  readonly dns: readonly string[];
  /** Seconds. */
  readonly lease: number | null;
  readonly domain: string | null;
  readonly giaddr: string | null;
  readonly options: readonly number[];
}
type Times<Content> = Content & { readonly frames: number };

/** Somebody who answered: one row for each MAC address, server identifier and VLAN. */
export interface DhcpServer extends Tagged {
  readonly mac: Mac;
  readonly serverId: string | null;
  readonly ip: string;
  readonly messages: Counts;
  readonly offers: readonly Times<Offer>[];
}
export interface DhcpClient extends Tagged {
  readonly mac: string;
  readonly messages: Counts;
  /** Whether it asks for answers that everybody hears. */
  readonly broadcastFlag: boolean;
  readonly hostname?: string;
  readonly vendorClass?: string;
  readonly requested?: readonly string[];
  readonly serverIdsNamed?: readonly string[];
  /** The relay that passed it on. */
  readonly via?: string;
}
interface RelaySeen extends Tagged {
  readonly giaddr: string;
  readonly circuitId: string | null;
  readonly remoteId: string | null;
  readonly mac: Mac | null;
  readonly direction: "to-server" | "to-client-side";
}
interface NakSeen extends Tagged {
  readonly server: string | null;
  readonly mac: Mac;
  readonly client: string;
  readonly message: string | null;
}
/** Who asked, and no offer was heard: at an ordinary port an answer to the client alone is not. */
export interface Unanswered extends Tagged {
  readonly mac: string;
  readonly discovers: number;
  readonly broadcastFlag: boolean;
  /** It goes on and names a server: so there was an answer. */
  readonly namesServerLater: boolean;
}

export interface DhcpFacts {
  readonly servers: readonly DhcpServer[];
  readonly clients: readonly DhcpClient[];
  readonly relays: readonly Times<RelaySeen>[];
  readonly naks: readonly Times<NakSeen>[];
  readonly discoversWithoutOfferSeen: readonly Unanswered[];
  /** Servers that clients name and that were not heard themselves. */
  readonly serversOnlyNamedInRequests: readonly string[];
}

interface ServerRow {
  readonly head: Pick<DhcpServer, "mac" | "serverId" | "ip"> & Tagged;
  readonly messages: Map<string, number>;
  readonly offers: Contents<Offer>;
}
interface ClientRow {
  readonly tagged: Tagged;
  readonly mac: string;
  readonly via: string | null;
  readonly messages: Map<string, number>;
  broadcastFlag: boolean;
  hostname: string | null;
  vendorClass: string | null;
  readonly requested: string[];
  readonly named: string[];
}

const textOption = (message: DhcpMessage, code: number): string | null =>
  message.option(code)?.text() ?? null;

function offerOf(message: DhcpMessage, type: Offer["type"]): Offer {
  const lease = message.option(OPTION.lease);
  return {
    type,
    client: clientOf(message),
    address: message.given,
    mask: addressOption(message, OPTION.mask),
    router: message.option(OPTION.router)?.addresses4() ?? [],
    dns: message.option(OPTION.dns)?.addresses4() ?? [],
    lease: lease?.has(0, 4) === true ? lease.u32(0) : null,
    domain: textOption(message, OPTION.domain),
    giaddr: message.relay,
    options: message.codes,
  };
}

/** Who asks for addresses, and who gives which. */
export class DhcpHeard {
  readonly #budget: Budget;
  readonly #servers: Rows<ServerRow>;
  readonly #clients: Rows<ClientRow>;
  readonly #relays: Contents<RelaySeen>;
  readonly #naks: Contents<NakSeen>;
  /** By VLAN and client: somebody offered it an address. */
  readonly #offered: Rows<true>;

  constructor(budget: Budget) {
    this.#budget = budget;
    this.#servers = new Rows(budget);
    this.#clients = new Rows(budget);
    this.#relays = new Contents(budget);
    this.#naks = new Contents(budget);
    this.#offered = new Rows(budget);
  }

  add(message: DhcpMessage): void {
    this.#addRelay(message);
    if (message.isReply) this.#addReply(message);
    else this.#addRequest(message);
  }

  #addRelay(message: DhcpMessage): void {
    const { relay, tagged, isReply, from } = message;
    if (relay === null) return;
    const where = isReply
      ? ({ mac: null, direction: "to-client-side" } as const)
      : ({ mac: macOf(from), direction: "to-server" } as const);
    this.#relays.add({ ...tagged, giaddr: relay, ...relayInformation(message), ...where });
  }

  #addReply(message: DhcpMessage): void {
    const { tagged, from, type, source } = message;
    const serverId = addressOption(message, OPTION.server);
    const row = this.#servers.at(`${tagKey(tagged)} ${from} ${serverId ?? ""}`, () => ({
      head: { ...tagged, mac: macOf(from), serverId, ip: formatAddress(source) },
      messages: new Map(),
      offers: new Contents(this.#budget),
    }));
    if (row !== null) countIn(row.messages, type);
    if (type === "offer" || type === "ack") {
      row?.offers.add(offerOf(message, type));
      this.#offered.at(`${tagKey(tagged)} ${clientOf(message)}`, () => true);
    }
    if (type === "nak") {
      const said = textOption(message, OPTION.message);
      this.#naks.add({
        ...tagged,
        server: serverId,
        mac: macOf(from),
        client: clientOf(message),
        message: said,
      });
    }
  }

  #addRequest(message: DhcpMessage): void {
    const { tagged, relay, type } = message;
    const mac = clientOf(message);
    const row = this.#clients.at(`${tagKey(tagged)} ${mac} ${relay ?? ""}`, () => ({
      tagged,
      mac,
      via: relay,
      messages: new Map(),
      broadcastFlag: false,
      hostname: null,
      vendorClass: null,
      requested: [],
      named: [],
    }));
    if (row === null) return;
    countIn(row.messages, type);
    row.broadcastFlag ||= message.isBroadcast;
    row.hostname ??= nameOfClient(message);
    row.vendorClass ??= textOption(message, OPTION.vendorClass);
    const [requested, named] = [
      addressOption(message, OPTION.requested),
      addressOption(message, OPTION.server),
    ];
    if (requested !== null) addTo(row.requested, requested);
    if (named !== null) addTo(row.named, named);
  }

  facts(): DhcpFacts | undefined {
    const [servers, clients] = [this.#servers.all(), this.#clients.all()];
    if (servers.length + clients.length === 0) return undefined;
    const heard = new Set(servers.map(({ head }) => head.serverId));
    const named = new Set(clients.flatMap((clientRow) => clientRow.named));
    return {
      servers: servers.map(({ head, messages, offers }) => ({
        ...head,
        messages: countsOf(messages),
        offers: offers.all(),
      })),
      clients: clients.map(clientFact),
      relays: this.#relays.all(),
      naks: this.#naks.all(),
      discoversWithoutOfferSeen: clients.flatMap((clientRow) => this.#unanswered(clientRow)),
      serversOnlyNamedInRequests: [...named].filter((id) => !heard.has(id)),
    };
  }

  #unanswered({ tagged, mac, messages, broadcastFlag, named }: ClientRow): Unanswered[] {
    const discovers = messages.get("discover") ?? 0;
    if (discovers === 0 || this.#offered.get(`${tagKey(tagged)} ${mac}`) !== undefined) return [];
    return [{ ...tagged, mac, discovers, broadcastFlag, namesServerLater: named.length > 0 }];
  }
}

function clientFact({ tagged, mac, via, messages, ...row }: ClientRow): DhcpClient {
  return {
    ...tagged,
    mac,
    messages: countsOf(messages),
    broadcastFlag: row.broadcastFlag,
    ...(row.hostname === null ? {} : { hostname: row.hostname }),
    ...(row.vendorClass === null ? {} : { vendorClass: row.vendorClass }),
    ...(row.requested.length === 0 ? {} : { requested: row.requested }),
    ...(row.named.length === 0 ? {} : { serverIdsNamed: row.named }),
    ...(via === null ? {} : { via }),
  };
}
