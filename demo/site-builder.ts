import { parseAddress, parseIpv4, parseMac, parsePrefix, type Ipv4, type Prefix4 } from "../src/core/address";
import { must } from "../src/core/kernel";
import {
  BLANK_ZONE,
  BLANK_HOST,
  BLANK_LINE,
  BLANK_LINK,
  BLANK_SEGMENT,
  BLANK_SIGN_IN,
  BLANK_SSID,
  PlanEdits,
  emptyPlan,
  applyChanges,
  vid as asVid,
  type Cable,
  type Device,
  type Host,
  type Line,
  type Optic,
  type Plan,
  type Port,
  type Segment,
  type Service,
  type SignIn,
  type Site,
  type Ssid,
  type Zone,
  type Vid,
  type WallEnd,
  PlanIndex,
} from "../src/core/plan";
import { asLabel, addDevice, fieldsOf, type PortRole } from "../src/core/planners";
import { DEVICE_MODELS } from "../src/core/catalogue";
import { servicesCalled } from "../src/core/policy";
import { adoptHosts, hostLines } from "../src/core/survey";
import { testId } from "../src/core/testing/build-plan";
import { surveyEntities, type SurveyText } from "../src/core/testing/survey-plan";

export const ip = (text: string): Ipv4 => must(parseIpv4(text), text);
export const net = (text: string): Prefix4 => {
  const prefix = parsePrefix(text);
  return must(prefix?.family === 4 ? prefix : null, text);
};
export const v = (n: number): Vid => must(asVid(n), `${n}`);
interface SegmentRow {
  mark: string;
  vid: number;
  name: string;
  zone: string;
  prefix: string;
  pool: [number, number] | null;
  leaseHours?: number;
  dns?: string[];
  planned: number;
  tape: [Segment["tape"]["base"], Segment["tape"]["tracer"]?];
  management?: boolean;
  domain?: string;
  growth?: number;
  prefix6?: string;
  purpose?: Segment["purpose"];
  group?: string;
}

/** Writes a made-up site entity by entity; ids come from the names, so that a rebuild gives the same file. */
export class SiteBuilder {
  readonly #draft: PlanEdits;
  readonly #key: string;
  readonly #hostNames: boolean;
  #count = 0;

  /** `hostNames`: end devices are entered under names that can stand in DNS. */
  constructor(site: Omit<Site, "id">, hostNames = false) {
    this.#key = site.name;
    this.#hostNames = hostNames;
    this.#draft = new PlanEdits(emptyPlan({ id: testId("site", site.name), ...site }));
  }

  #id(kind: string, name: string): string {
    return testId(kind, `${this.#key}/${name}`);
  }

  #last(address: Ipv4 | string, n: number): Ipv4 {
    const text = typeof address === "string" ? address : "";
    return ip(text.replace(/\.\d+\/\d+$/, `.${n}`));
  }

  domain(name: string): this {
    this.#draft.put("domain", { id: this.#id("domain", name), name });
    return this;
  }

  zone(name: string, insideOpen: boolean, fields: Partial<Zone> = {}): this {
    this.#draft.put("zone", { ...BLANK_ZONE, id: this.#id("zone", name), name, insideOpen, ...fields });
    return this;
  }

  line(name: string, fields: Partial<Line>): this {
    this.#draft.put("line", { ...BLANK_LINE, id: this.#id("line", name), name, ...fields });
    return this;
  }

  segment(row: SegmentRow, gateway: string | null): this {
    const domain = this.#id("domain", row.domain ?? "Main");
    const vlan = this.#draft.put("vlan", {
      id: this.#id("vlan", row.name),
      domain,
      vid: v(row.vid),
      name: row.name,
      purpose: "segment",
    });
    const id = this.#id("segment", row.name);
    const prefix6 = row.prefix6 === undefined ? null : parsePrefix(row.prefix6);
    this.#draft.put("segment", {
      ...BLANK_SEGMENT,
      id,
      zone: this.#id("zone", row.zone),
      vlan: vlan.id,
      name: row.name,
      mark: row.mark,
      tape: { base: row.tape[0], tracer: row.tape[1] ?? null },
      prefixes4: [net(row.prefix)],
      prefixes6: prefix6?.family === 6 ? [prefix6] : [],
      dns: (row.dns ?? []).map((d) => must(parseAddress(d), d)),
      planned: row.planned,
      growth: row.growth ?? 0,
      management: row.management ?? false,
      purpose: row.purpose ?? "other",
      group: row.group ?? "",
    });
    if (gateway === null) return this;
    const leg = this.leg(gateway, row.name, row.prefix.replace(/\.\d+\/\d+$/, ".1"));
    this.#draft.patch("segment", id, { gatewayInterface: leg });
    if (row.pool !== null) {
      this.#draft.put("scope", {
        id: this.#id("scope", row.name),
        segment: id,
        serverDevice: this.#id("device", gateway),
        serverHost: null,
        family: 4,
        pools: [{ first: this.#last(row.prefix, row.pool[0]), last: this.#last(row.prefix, row.pool[1]) }],
        exclusions: [],
        leaseSeconds: (row.leaseHours ?? 8) * 3600,
        options: [],
      });
    }
    return this;
  }

  parkedVlan(vid: number, name: string, purpose: "parked" | "wayBack"): this {
    this.#draft.put("vlan", {
      id: this.#id("vlan", name),
      domain: this.#id("domain", "Main"),
      vid: v(vid),
      name,
      purpose,
    });
    return this;
  }

  /** A device's own address in a segment. */
  leg(device: string, segment: string, address: string): string {
    this.#count += 1;
    const id = this.#id("interface", `${device}/${segment}`);
    this.#draft.put("interface", {
      id,
      device: this.#id("device", device),
      port: null,
      segment: this.#id("segment", segment),
      line: null,
      name: segment,
      mac: parseMac(
        `02:5a:10:ff:${Math.floor(this.#count / 256)
          .toString(16)
          .padStart(2, "0")}:${(this.#count % 256).toString(16).padStart(2, "0")}`,
      ),
      addresses4: [ip(address)],
      addresses6: [],
      relayTo: null,
      translates: "asUsual",
    });
    return id;
  }

  /** A device of a generic model, its ports in the model's order. */
  device(name: string, model: string, place: string, fields: Partial<Device> = {}): this {
    const chosen = must(
      DEVICE_MODELS.find((m) => m.id === model),
      model,
    );
    let n = 0;
    const scratch = new PlanEdits(this.#plan());
    must(
      addDevice(
        {
          edits: scratch,
          index: PlanIndex.of(scratch.plan),
          ids: () => this.#id("scratch", `${name}/${(n += 1)}`),
        },
        { model: chosen.id, name, place },
      ) === null
        ? true
        : null,
      name,
    );
    for (const port of scratch.all("port").filter((p) => this.#draft.get("port", p.id) === undefined)) {
      this.#draft.put("port", {
        ...port,
        id: this.#id("port", `${name}/${port.label}`),
        device: this.#id("device", name),
      });
    }
    for (const radio of scratch
      .all("radio")
      .filter(
        (r) =>
          this.#draft.get("radio", r.id) === undefined && this.#draft.get("device", r.device) === undefined,
      )) {
      this.#draft.put("radio", {
        ...radio,
        id: this.#id("radio", `${name}/${radio.band}`),
        device: this.#id("device", name),
      });
    }
    const made = must(
      scratch.all("device").find((d) => d.name === name),
      name,
    );
    const domain = this.#id("domain", fields.domain ?? "Main");
    this.#draft.put("device", {
      ...made,
      ...fields,
      id: this.#id("device", name),
      domain: chosen.bridging === "plain" ? null : domain,
    });
    return this;
  }

  /** The line's port and leg on a gateway. */
  wan(device: string, line: string, port: string, address: string | null): this {
    this.#draft.put("interface", {
      id: this.#id("interface", `${device}/${line}`),
      device: this.#id("device", device),
      port: this.#id("port", `${device}/${port}`),
      segment: null,
      line: this.#id("line", line),
      name: line,
      mac: null,
      addresses4: address === null ? [] : [ip(address)],
      addresses6: [],
      relayTo: null,
      translates: "asUsual",
    });
    return this;
  }

  /** How ports with sign-in let devices in, and the ports that ask for it. */
  signIn(
    name: string,
    servers: readonly string[],
    fields: Partial<SignIn>,
    ports: readonly (readonly [device: string, label: number])[],
  ): this {
    this.#draft.put("signIn", {
      ...BLANK_SIGN_IN,
      id: this.#id("signIn", name),
      name,
      servers: servers.map((server) => this.#id("host", server)),
      ...fields,
    });
    for (const [device, label] of ports)
      this.#guard(device, label, { signIn: true, profile: this.#id("signIn", name) });
    return this;
  }

  /** VLANs in which a switch lets answers of DHCP servers through from trusted ports only. */
  snoops(device: string, vids: readonly number[], trusted: readonly number[]): this {
    const id = this.#id("device", device);
    this.#draft.patch("device", id, {
      protections: {
        ...this.#draft.need("device", id).protections,
        snooping: vids.map(v),
        keepsBindings: true,
      },
    });
    for (const label of trusted) this.#guard(device, label, { dhcpTrust: true });
    return this;
  }

  /** Guards of a port beside those it has. */
  #guard(device: string, label: string | number, guards: Partial<Port["guards"]>): void {
    const id = this.#id("port", `${device}/${label}`);
    this.#draft.patch("port", id, { guards: { ...this.#draft.need("port", id).guards, ...guards } });
  }

  /** Something of a device or of one of its ports that no other method sets. */
  set(device: string, fields: Partial<Device>): this {
    this.#draft.patch("device", this.#id("device", device), fields);
    return this;
  }
  setPort(device: string, label: number, fields: Partial<Port>): this {
    this.#draft.patch("port", this.#id("port", `${device}/${label}`), fields);
    return this;
  }
  /** The id of a host, for what names it. */
  hostId = (name: string): string => this.#id("host", name);

  /** A cable: Category 6, or where both ports take it fibre with an optic at each end. */
  // eslint-disable-next-line max-params -- a row of a demo site's table, read in columns
  cable(
    a: string,
    b: string,
    metres: number,
    label: string,
    fibre: { cable: Cable; optic: Optic } = { cable: "om3", optic: "10GBASE-SR" },
  ): this {
    const isFibre = [a, b].every(
      (port) => this.#draft.need("port", this.#id("port", port)).medium === "fibre",
    );
    this.#draft.put("link", {
      ...BLANK_LINK,
      id: this.#id("link", `${a}-${b}`),
      a: this.#id("port", a),
      b: this.#id("port", b),
      medium: isFibre ? "fibre" : "copper",
      cable: isFibre ? fibre.cable : "cat6",
      lengthCm: metres * 100,
      label,
    });
    if (isFibre)
      for (const port of [a, b]) this.#draft.patch("port", this.#id("port", port), { optic: fibre.optic });
    return this;
  }

  /** The channels of an access point, 2.4 and 5 GHz, and whom it hears. */
  radios(device: string, channel24: number, channel5: number, hears: readonly string[] = []): this {
    this.#draft.patch("radio", this.#id("radio", `${device}/2.4`), { channel: channel24 });
    this.#draft.patch("radio", this.#id("radio", `${device}/5`), { channel: channel5 });
    this.#draft.patch("device", this.#id("device", device), {
      hears: hears.map((other) => this.#id("device", other)),
    });
    return this;
  }

  /** Where a device stands in its cabinet and what feeds it. */
  rack(device: string, rackUnit: number, feed: string, backupFeed = ""): this {
    this.#draft.patch("device", this.#id("device", device), { rackUnit, heightUnits: 1, feed, backupFeed });
    return this;
  }

  /** Ports that more gear hangs behind: any number of addresses. */
  unlimited(device: string, labels: readonly (string | number)[]): this {
    for (const label of labels) this.#guard(device, label, { macLimit: null });
    return this;
  }

  paint(device: string, labels: readonly (string | number)[], role: PortRole): this {
    for (const label of labels)
      this.#draft.patch("port", this.#id("port", `${device}/${label}`), fieldsOf(role));
    return this;
  }

  note(device: string, label: string | number, note: string): this {
    this.#draft.patch("port", this.#id("port", `${device}/${label}`), { note });
    return this;
  }

  /** "Name" or "Name@Access point". */
  #joins(at: string): Host["attachment"] {
    const [name = "", point] = at.split("@");
    return {
      at: "ssid",
      ssid: this.#id("ssid", name),
      accessPoint: point === undefined ? null : this.#id("device", point),
    };
  }

  /** What a device's own bridge says of itself, and which of its legs it asks its servers from. */
  itself(
    device: string,
    { bridgeMac, asksFrom }: { readonly bridgeMac?: string; readonly asksFrom?: string },
  ): this {
    this.#draft.patch("device", this.#id("device", device), {
      ...(bridgeMac === undefined ? {} : { bridgeMac: parseMac(bridgeMac) }),
      ...(asksFrom === undefined ? {} : { asksFrom: this.#id("interface", `${device}/${asksFrom}`) }),
    });
    return this;
  }

  #attachmentAt(at: string): Host["attachment"] {
    if (at === "") return { at: "unplaced" };
    if (at.startsWith("ssid:")) return this.#joins(at.slice(5));
    if (at.startsWith("behind:")) return { at: "behind", host: this.#id("host", at.slice(7)) };
    return { at: "port", port: this.#id("port", at) };
  }
  /** An end device. `at` is "Device/port", "ssid:Name", "ssid:Name@Access point", "behind:Host" or empty. */
  // eslint-disable-next-line max-params -- a row of a demo site's table, read in columns
  host(
    name: string,
    kind: Host["kind"],
    segment: string,
    place: string,
    at: string,
    fixed: { how: "typed" | "reserved"; last: number } | null = null,
    fields: Partial<Host> = {},
  ): this {
    this.#count += 1;
    const home = this.#draft.need("segment", this.#id("segment", segment));
    const base = home.prefixes4[0];
    const n = this.#count.toString(16).padStart(4, "0");
    const attachment = this.#attachmentAt(at);
    this.#draft.put("host", {
      ...BLANK_HOST,
      id: this.#id("host", name),
      name: this.#hostNames ? asLabel(name) : name,
      kind,
      mac: parseMac(`02:5a:10:${home.mark.charCodeAt(0).toString(16)}:${n.slice(0, 2)}:${n.slice(2)}`),
      manner: fixed?.how ?? "dynamic",
      ipv4: fixed === null || base === undefined ? null : ip(ipText(base, fixed.last)),
      segment: home.id,
      attachment,
      place,
      ...fields,
    });
    return this;
  }

  /** A service of the site's own that takes in others by their names. */
  service(name: string, includes: string[], note: string): this {
    this.#draft.put("service", { id: this.#id("service", name), name, parts: [], includes, note });
    return this;
  }

  ssid(name: string, segment: string, fields: Partial<Ssid> = {}): this {
    this.#draft.put("ssid", {
      ...BLANK_SSID,
      id: this.#id("ssid", name),
      name,
      segment: this.#id("segment", segment),
      ...fields,
    });
    return this;
  }

  #services(name: string): readonly Service[] {
    const own = new Map(this.#draft.all("service").map((service) => [service.id, service]));
    const parts = servicesCalled({ service: own }, name);
    return must(parts.length === 0 ? null : parts, name);
  }

  wall(from: string, to: string, services: readonly string[] | "open", reason: string): this {
    const end = (name: string): WallEnd => {
      if (name === "Internet") return { at: "internet" };
      if (name === "Gateway") return { at: "gateway" };
      return { at: "zone", zone: this.#id("zone", name) };
    };
    this.#draft.put("wall", {
      id: this.#id("wall", `${from}>${to}`),
      from: end(from),
      to: end(to),
      door: services === "open" ? "open" : "services",
      services: services === "open" ? [] : services.flatMap((name) => this.#services(name)),
      reason,
      conduit: null,
    });
    return this;
  }

  patchSegment(name: string, fields: Partial<Segment>): this {
    this.#draft.patch("segment", this.#id("segment", name), fields);
    return this;
  }

  /** For what only one demo needs. */
  with(edit: (edits: PlanEdits, id: (kind: string, name: string) => string) => void): this {
    edit(this.#draft, (kind, name) => this.#id(kind, name));
    return this;
  }

  #plan(): Plan {
    const applied = applyChanges(this.#draft.plan, this.#draft.changes());
    return must(
      applied.ok ? applied.value : null,
      `${this.#key} holds together: ${applied.ok ? "" : JSON.stringify(applied.error)}`,
    );
  }

  /** The survey that the plan answers to; devices at a surveyed place are what its lines count. */
  survey(survey: SurveyText): this {
    const { rooms, gear } = surveyEntities(survey);
    for (const room of rooms) this.#draft.put("room", room);
    for (const found of gear) this.#draft.put("gear", found);
    return this;
  }

  build(): Plan {
    adoptHosts(this.#draft, hostLines({ index: PlanIndex.of(this.#plan()) }));
    return this.#plan();
  }
}

const ipText = (prefix: Prefix4, last: number): string => {
  const parts = [
    Math.floor(prefix.network / 2 ** 24),
    Math.floor(prefix.network / 2 ** 16) % 256,
    Math.floor(prefix.network / 256) % 256,
  ];
  return `${parts.join(".")}.${last}`;
};
