import { familyOf, type Address } from "../address";
import { ascending } from "../kernel";
import { hasRadios, holdsAddress, type Host, HOST_KINDS, type PlanIndex, type Segment } from "../plan";
import { HOST_KIND_WORDS } from "../planners";

/** Looks things up by what a person writes; built once for a table, not once for a row. */
export class Names {
  readonly segments = new Map<string, Segment>();
  readonly byId: ReadonlyMap<string, Segment>;
  readonly #subnets: { readonly first: number; readonly segment: Segment }[] = [];
  readonly #subnets6: Segment[];
  readonly ports = new Map<string, string>();
  readonly ssids = new Map<string, string>();
  readonly points = new Map<string, string>();
  readonly legs: PlanIndex["plan"]["interface"];
  readonly hosts = new Map<string, Host>();
  readonly macs = new Map<string, Host>();
  readonly addresses = new Map<Address, string>();
  readonly kinds = new Map<string, Host["kind"]>();

  constructor(index: PlanIndex) {
    const { plan } = index;
    this.byId = plan.segment;
    this.legs = plan.interface;
    this.#subnets6 = [...plan.segment.values()].filter((segment) => segment.prefixes6.length > 0);
    this.#readSegments(index);
    this.#readPlaces(index);
    this.#readStations(index);
    for (const kind of HOST_KINDS)
      for (const word of [kind, HOST_KIND_WORDS[kind]]) this.kinds.set(word.toLowerCase(), kind);
  }

  #readSegments(index: PlanIndex): void {
    for (const segment of index.plan.segment.values()) {
      for (const key of [segment.mark, segment.name]) this.segments.set(key.toLowerCase(), segment);
      const vid = index.vidOf(segment);
      if (vid !== null && !this.segments.has(String(vid))) this.segments.set(String(vid), segment);
      for (const prefix of segment.prefixes4) this.#subnets.push({ first: prefix.network, segment });
    }
    this.#subnets.sort((a, b) => ascending(a.first, b.first));
  }

  #readPlaces({ plan }: PlanIndex): void {
    for (const port of plan.port.values())
      this.ports.set(`${plan.device.get(port.device)?.name ?? ""} ${port.label}`.toLowerCase(), port.id);
    for (const ssid of plan.ssid.values()) this.ssids.set(ssid.name.toLowerCase(), ssid.id);
    for (const device of plan.device.values())
      if (hasRadios(device)) this.points.set(device.name.toLowerCase(), device.id);
  }

  #readStations({ plan }: PlanIndex): void {
    for (const host of plan.host.values()) {
      this.hosts.set(host.name.toLowerCase(), host);
      if (host.mac !== null) this.macs.set(host.mac, host);
      for (const address of [host.ipv4, host.ipv6])
        if (address !== null) this.addresses.set(address, host.id);
    }
    for (const leg of plan.interface.values())
      for (const address of [...leg.addresses4, ...leg.addresses6]) this.addresses.set(address, leg.id);
  }

  /** The first device, or leg of gear, that has an address already; in words. */
  holderName({ plan }: PlanIndex, holder: string): string {
    return (
      plan.host.get(holder)?.name ??
      plan.device.get(plan.interface.get(holder)?.device ?? "")?.name ??
      "another device"
    );
  }

  homeOf(address: Address): Segment | undefined {
    if (familyOf(address) === 6) return this.#subnets6.find((segment) => holdsAddress(segment, address));
    let [low, high] = [0, this.#subnets.length - 1];
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if ((this.#subnets[middle]?.first ?? 0) <= address) low = middle;
      else high = middle - 1;
    }
    const segment = this.#subnets[low]?.segment;
    return segment !== undefined && holdsAddress(segment, address) ? segment : undefined;
  }
}
