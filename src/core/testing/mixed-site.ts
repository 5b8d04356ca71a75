import { parsePrefix, type Ipv4, type Prefix4 } from "../address";
import { must } from "../kernel";
import {
  BLANK_ZONE,
  usualFilter,
  USUAL_METRIC,
  applyChanges,
  BLANK_DEVICE,
  BLANK_HOST,
  BLANK_LINE,
  BLANK_LINK,
  BLANK_PORT,
  BLANK_SEGMENT,
  BLANK_SSID,
  PlanEdits,
  emptyPlan,
  vid,
  type Device,
  type Host,
  type Plan,
  type Port,
  type Segment,
  type Vid,
} from "../plan";
import { SERVICES } from "../policy";
import { aSite, testId } from "./build-plan";
import type { Dice } from "./plants";
import { ip } from "./written";

// Sites as they are found, not as they are drawn: networks on routed ports with gear that knows no VLANs
// behind them, wireless without a VLAN, routers behind routers, beside each other and one after the other,
// some translating and some with routes by hand, and VLANs beside all of it.

const net = (text: string): Prefix4 => {
  const prefix = parsePrefix(text);
  return must(prefix?.family === 4 ? prefix : null, text);
};
const pick = <T>(roll: Dice, list: readonly T[]): T => must(list[roll(list.length)], "one of them");
const SERVICE = must(
  SERVICES.find(({ name }) => name === "https"),
  "https",
);

/** A network of the site while it is built: its router, and the switch that takes what is plugged in. */
interface Net {
  readonly segment: Segment;
  readonly router: Device;
  readonly access: () => Port;
  readonly parent: Net | null;
  readonly prefix: Prefix4;
  readonly translated: boolean;
}

class Builder {
  readonly draft = new PlanEdits(emptyPlan(aSite({ blocks: [net("10.0.0.0/8")] })));
  readonly #roll: Dice;
  #count = 0;

  constructor(roll: Dice) {
    this.#roll = roll;
  }

  id(kind: string): string {
    this.#count += 1;
    return testId(kind, `mixed ${this.#count}`);
  }

  device(name: string, fields: Partial<Device>): Device {
    return this.draft.put("device", {
      ...BLANK_DEVICE,
      id: this.id("device"),
      kind: "switch",
      bridging: "plain",
      name,
      model: "",
      domain: null,
      place: name,
      filter: usualFilter({ kind: fields.kind ?? "switch" }),
      ...fields,
    });
  }

  port(device: Device, label: string, fields: Partial<Port> = {}): Port {
    const position = this.draft.all("port").filter((port) => port.device === device.id).length + 1;
    return this.draft.put("port", {
      ...BLANK_PORT,
      id: this.id("port"),
      device: device.id,
      label,
      softwareName: "",
      position,
      ...fields,
    });
  }

  link(a: Port, b: Port): void {
    this.draft.put("link", {
      ...BLANK_LINK,
      id: this.id("link"),
      a: a.id,
      b: b.id,
      label: `C${this.#count}`,
    });
  }

  leg(
    device: Device,
    name: string,
    fields: { port?: string; segment?: string; line?: string; address?: Ipv4; translates?: "yes" | "no" },
  ): string {
    return this.draft.put("interface", {
      id: this.id("interface"),
      device: device.id,
      port: fields.port ?? null,
      segment: fields.segment ?? null,
      line: fields.line ?? null,
      name,
      mac: null,
      addresses4: fields.address === undefined ? [] : [fields.address],
      addresses6: [],
      relayTo: null,
      translates: fields.translates ?? "asUsual",
    }).id;
  }

  /** The zone of a network: now and then that of the first, else one of its own. */
  #zoneOf(n: number): string {
    const { draft } = this;
    if (this.#roll(4) === 0 && n > 1) return must(draft.all("zone")[0], "a zone").id;
    const insideOpen = this.#roll(2) === 0;
    return draft.put("zone", { ...BLANK_ZONE, id: this.id("zone"), name: `Zone ${n}`, insideOpen }).id;
  }

  /**
   * A new network at a router: on a routed port with plain gear behind it, or on a VLAN over a switch that
   * knows them.
   */
  network(router: Device, n: number, parent: Net | null, translated: boolean): Net {
    const [edits, prefix] = [this.draft, net(`10.9.${n}.0/24`)];
    const isVlan = this.#roll(3) === 0;
    const zone = this.#zoneOf(n);
    const number = must(vid(10 * n), "a VLAN ID");
    const vlan = isVlan
      ? edits.put("vlan", {
          id: this.id("vlan"),
          domain: this.domainOf(router),
          vid: number,
          name: `Net ${n}`,
          purpose: "segment",
        }).id
      : null;
    const segment = edits.put("segment", {
      ...BLANK_SEGMENT,
      id: this.id("segment"),
      zone,
      vlan,
      name: `Net ${n}`,
      mark: `N${n}`,
      tape: { base: "blue", tracer: null },
      prefixes4: [prefix],
      dns: [ip(`10.9.${n}.1`)],
      planned: 5,
    });
    const access = isVlan ? this.#vlanSide(router, n, number) : this.#plainSide(router, n);
    const leg = this.leg(router, segment.name, {
      segment: segment.id,
      address: ip(`10.9.${n}.1`),
      ...(access.routed === null ? {} : { port: access.routed }),
    });
    edits.patch("segment", segment.id, { gatewayInterface: leg });
    edits.put("scope", {
      id: this.id("scope"),
      segment: segment.id,
      serverDevice: router.id,
      serverHost: null,
      family: 4,
      pools: [{ first: ip(`10.9.${n}.100`), last: ip(`10.9.${n}.150`) }],
      exclusions: [],
      leaseSeconds: 3600,
      options: [],
    });
    return {
      segment: edits.need("segment", segment.id),
      router,
      access: access.port,
      parent,
      prefix,
      translated,
    };
  }

  domainOf(router: Device): string {
    const known = this.draft.need("device", router.id).domain;
    if (known !== null) return known;
    const domain = this.draft.put("domain", { id: this.id("domain"), name: router.name }).id;
    this.draft.patch("device", router.id, { domain, bridging: "vlan" });
    return domain;
  }

  #plainSide(router: Device, n: number): { readonly routed: string | null; readonly port: () => Port } {
    const lan = this.port(router, `lan ${n}`);
    const first = this.device(`Plain ${n}`, {});
    this.link(lan, this.port(first, "up"));
    const second = this.#roll(2) === 0 ? null : this.device(`Plain ${n}b`, {});
    if (second !== null) this.link(this.port(first, "down"), this.port(second, "up"));
    let used = 0;
    return {
      routed: lan.id,
      port: () => {
        used += 1;
        return this.port(second !== null && used % 2 === 0 ? second : first, `${used}`);
      },
    };
  }

  #vlanSide(
    router: Device,
    n: number,
    number: Vid,
  ): { readonly routed: string | null; readonly port: () => Port } {
    const domain = this.domainOf(router);
    const trunk = { tagged: [number], untagged: [], pvid: null };
    const known = this.draft
      .all("device")
      .find((device) => device.kind === "switch" && device.domain === domain);
    const made = known ?? this.device(`Managed ${n}`, { bridging: "vlan", domain });
    if (known === undefined) this.link(this.port(router, `trunk ${n}`, trunk), this.port(made, "up", trunk));
    else
      for (const port of this.draft
        .all("port")
        .filter((port) => port.label === "up" && port.device === made.id))
        for (const end of [port.id, this.#peer(port.id)]) {
          const was = this.draft.need("port", end);
          this.draft.patch("port", end, { tagged: [...was.tagged, number].sort((a, b) => a - b) });
        }
    let used = 0;
    return {
      routed: null,
      port: () => {
        used += 1;
        return this.port(made, `${n}.${used}`, { pvid: number, untagged: [number] });
      },
    };
  }

  #peer(port: string): string {
    const link = must(
      this.draft.all("link").find((link) => link.a === port || link.b === port),
      "its cable",
    );
    return link.a === port ? link.b : link.a;
  }

  host(network: Net, name: string, last: number, attachment: Host["attachment"]): void {
    const isTyped = this.#roll(3) === 0;
    this.draft.put("host", {
      ...BLANK_HOST,
      id: this.id("host"),
      name,
      segment: network.segment.id,
      manner: isTyped ? "typed" : "dynamic",
      ipv4: isTyped ? ip(`10.9.${(network.prefix.network / 256) % 256}.${last}`) : null,
      attachment,
    });
  }
}

/** What is plugged in: one or two hosts by cable, and where there is an access point one that joins it. */
function people(builder: Builder, roll: Dice, network: Net): void {
  const { draft: edits } = builder;
  const name = network.segment.name;
  for (let i = 0; i <= roll(2); i += 1)
    builder.host(network, `${name} host ${i}`, 10 + i, { at: "port", port: network.access().id });
  if (roll(2) === 0) return;
  const at = Array.from({ length: 1 + roll(2) }, (_, i) =>
    accessPoint(builder, roll, network, `${name} AP ${i}`),
  );
  const ssid = edits.put("ssid", {
    ...BLANK_SSID,
    id: builder.id("ssid"),
    name: `${name} air`,
    segment: network.segment.id,
    at,
  });
  builder.host(network, `${name} tablet`, 20, {
    at: "ssid",
    ssid: ssid.id,
    accessPoint: roll(2) === 0 ? null : pick(roll, at),
  });
}

/** An access point at a network's switch, knowing VLANs or not where the network has none. */
function accessPoint(builder: Builder, roll: Dice, network: Net, name: string): string {
  const { draft: edits } = builder;
  const socket = network.access();
  const vlan = network.segment.vlan === null ? null : edits.need("vlan", network.segment.vlan).vid;
  const point = builder.device(name, {
    kind: "accessPoint",
    bridging: vlan === null && roll(2) === 0 ? "plain" : "vlan",
    domain: vlan === null ? null : builder.domainOf(network.router),
  });
  if (vlan !== null) edits.patch("port", socket.id, { pvid: null, untagged: [], tagged: [vlan] });
  builder.link(socket, builder.port(point, "up", vlan === null ? {} : { tagged: [vlan] }));
  return point.id;
}

/** Doors between all networks, out, and to the gateways, as chance has them. */
function doors(
  { draft: edits, id }: { readonly draft: PlanEdits; readonly id: (kind: string) => string },
  roll: Dice,
): void {
  const zones = edits.all("zone").map(({ id: zone }) => ({ at: "zone", zone }) as const);
  for (const from of zones)
    for (const to of [...zones, { at: "internet" } as const, { at: "gateway" } as const]) {
      if (to.at === "zone" && to.zone === from.zone) continue;
      const door = pick(roll, ["open", "open", "closed", "services"] as const);
      edits.put("wall", {
        id: id("wall"),
        from,
        to,
        door,
        services: door === "services" ? [SERVICE] : [],
        reason: "",
        conduit: null,
      });
    }
}

/**
 * A site of one to three networks at the gateway and up to three routers behind, each plugged into any
 * network there is by then.
 */
export function mixedSite(roll: Dice): Plan {
  const builder = new Builder(roll);
  const { draft: edits } = builder;
  const gateway = builder.device("Gateway", { kind: "gateway", bridging: "none" });
  const line = edits.put("line", { ...BLANK_LINE, id: builder.id("line"), name: "Line" });
  builder.leg(gateway, "Line", { port: builder.port(gateway, "wan").id, line: line.id });
  const networks: Net[] = [];
  let n = 0;
  for (let i = 0; i <= roll(3); i += 1) networks.push(builder.network(gateway, (n += 1), null, true));
  for (let i = roll(4); i > 0; i -= 1) {
    const front = pick(roll, networks);
    const router = builder.device(`Router ${i}`, { kind: "gateway", bridging: "none" });
    const outside = builder.port(router, "outside");
    const address = ip(`10.9.${(front.prefix.network / 256) % 256}.${250 - i}`);
    builder.link(front.access(), outside);
    const translated = roll(2) === 0;
    builder.leg(router, "Outside", {
      port: outside.id,
      segment: front.segment.id,
      address,
      translates: translated ? "yes" : "no",
    });
    const inner = builder.network(router, (n += 1), front, translated);
    networks.push(inner);
    if (!translated) routeUp(edits, inner, address);
  }
  for (const network of networks) people(builder, roll, network);
  doors({ draft: edits, id: (kind) => builder.id(kind) }, roll);
  const built = applyChanges(edits.plan, edits.changes());
  return must(
    built.ok ? built.value : null,
    `the site holds together: ${built.ok ? "" : JSON.stringify(built.error)}`,
  );
}

/** Routes to a network that is not translated, at each router up to the first that hides what is behind it. */
function routeUp(edits: PlanEdits, inner: Net, outside: Ipv4): void {
  let via = outside;
  for (let at: Net | null = inner.parent; at !== null; at = at.parent) {
    const { router } = at;
    edits.patch("device", router.id, {
      routes: [
        ...edits.need("device", router.id).routes,
        { prefix: inner.prefix, via, metric: USUAL_METRIC },
      ],
    });
    if (at.translated) return;
    via = must(
      edits.all("interface").find((leg) => leg.device === router.id && leg.name === "Outside")?.addresses4[0],
      "its outside",
    );
  }
}
