import { familyOf, parseAddress, type Address, type Ipv4, type Ipv6 } from "../address";
import { err, ok, type Result } from "../kernel";
import {
  lastNumber,
  PortNames,
  vid as asVid,
  type Device,
  type PlanIndex,
  type Port,
  type Vid,
} from "../plan";
import { readVids } from "../planners";
import { noSuchPort, vidSet, type LegReading, type PortReading, type Reading } from "./reading";
import { cellsOf, type Cells, type Column } from "./table-heads";

const NO_HEADS =
  "No line names the columns. The first has to say what they are: Port, PVID, Untagged and Tagged; or VLAN, " +
  "Name, Untagged and Tagged; or VLAN and Address.";

/** A row by what its columns hold. */
type Row = Readonly<Partial<Record<Column, string>>>;

function rowsOf({ columns, rows }: Cells): Row[] {
  return rows.map((cells) => {
    const row: Partial<Record<Column, string>> = {};
    columns.forEach((column, at) => {
      const text = cells[at] ?? "";
      if (column !== null && row[column] === undefined) row[column] = text;
    });
    return row;
  });
}

/** A list at its commas, and at spaces that a number still follows: what comes after the last belongs to it. */
function partsOfList(text: string): string[] {
  const [numbered = ""] = /^[^]*\d/.exec(text) ?? [];
  const [rest = "", ...others] = text.slice(numbered.length).split(/[,;]/);
  const parts = numbered.split(/[,;]|\s+/);
  return [...parts.slice(0, -1), `${parts.at(-1) ?? ""}${rest}`, ...others];
}

const isNone = (text: string): boolean => /^(|-+|–|none|n\/a)$/i.test(text.trim());

const YES = /^(yes|on|true|enabled?|1)$/i;
const NO = /^(no|off|false|disabled?|shutdown|0|administratively down|admin down)$/i;

/** On or off as it is written; a link that is up or down says nothing of what is set. */
function switched(row: Row): boolean | undefined {
  const admin = row.enabled ?? "";
  if (YES.test(admin) || /^up$/i.test(admin)) return true;
  if (NO.test(admin) || /^down$/i.test(admin)) return false;
  const state = row.state ?? "";
  if (NO.test(state)) return false;
  return YES.test(state) ? true : undefined;
}

function admitOf(text: string): Port["admit"] | undefined {
  if (/untag/i.test(text)) return "untagged";
  if (/tag/i.test(text) || /vlan.?only/i.test(text)) return "tagged";
  return /all|any|both/i.test(text) ? "all" : undefined;
}

const yesNo = (text: string): boolean | undefined => {
  if (YES.test(text)) return true;
  return NO.test(text) ? false : undefined;
};

type Vids = { readonly untagged?: readonly Vid[]; readonly tagged?: readonly Vid[] };

/** "10u 20t 30t" or "10(U), 20(T)": VLANs with how they leave; null where it is none. */
function marked(text: string): Vids | null {
  const parts = text.split(/[\s,;]+/).filter((part) => part !== "");
  const found = { untagged: [] as Vid[], tagged: [] as Vid[] };
  for (const part of parts) {
    const [, number, way] = /^(\d+)\(?([ut])\)?$/i.exec(part) ?? [];
    const vid = asVid(Number(number));
    if (vid === null || way === undefined) return null;
    found[way.toLowerCase() === "u" ? "untagged" : "tagged"].push(vid);
  }
  return parts.length === 0 ? null : found;
}

/** "1-4u", "7(T)": ports with how a VLAN leaves them. */
const MARKED = /^(.*\d)\(?([ut])\)?$/i;
const UNMARKED =
  "Which ports are tagged is not said, so none was taken: name two columns Untagged and Tagged, or write u " +
  "or t beside each port.";

const isTrunk = (row: Row): boolean => /trunk|tagged/i.test(row.mode ?? "");

/** What went wrong with a table's lines, in sentences; many of one sort are one. */
class Missed {
  readonly sentences: string[] = [];

  say(sentence: string): void {
    if (!this.sentences.includes(sentence)) this.sentences.push(sentence);
  }
}

class TableReader {
  readonly #index: PlanIndex;
  readonly #device: Device;
  readonly #names: PortNames;
  readonly #missed = new Missed();

  constructor(index: PlanIndex, device: Device) {
    this.#index = index;
    this.#device = device;
    this.#names = new PortNames(index, device);
  }

  #vids(text: string, where: string): Vid[] | undefined {
    if (isNone(text)) return [];
    if (/^all$/i.test(text.trim())) return this.#allVids();
    const read = readVids(text);
    if (typeof read !== "string") return [...read];
    this.#missed.say(`${where}: ${read}`);
    return undefined;
  }

  /** Every VLAN of the plan that can be on the device. */
  #allVids(): Vid[] {
    const { domain } = this.#device;
    return vidSet(
      [...this.#index.plan.vlan.values()].flatMap((vlan) => (vlan.domain === domain ? vlan.vid : [])),
    );
  }

  #port(text: string): Port | null {
    const port = this.#names.find(text);
    if (port === null) this.#missed.say(noSuchPort(text, this.#index, this.#device));
    return port;
  }

  /** The PVID as a port's row has it: null for none, undefined where it is not said or can't be read. */
  #pvid(row: Row, where: string): Vid | null | undefined {
    const own = row.pvid ?? (isTrunk(row) ? undefined : row.vid);
    // A port that is no access port stands in such a column by a word.
    if (own === undefined || /^(trunk|routed|hybrid|general)$/i.test(own.trim())) return undefined;
    return isNone(own) ? null : this.#vids(own, where)?.[0];
  }

  /** What is untagged and what tagged as a port's row has it, in two columns or in one. */
  #members(row: Row, where: string): Vids {
    const both = row.members === undefined ? null : marked(row.members);
    const untagged = row.untagged === undefined ? both?.untagged : this.#vids(row.untagged, where);
    const tagged = row.tagged === undefined ? both?.tagged : this.#vids(row.tagged, where);
    return { ...(untagged === undefined ? {} : { untagged }), ...(tagged === undefined ? {} : { tagged }) };
  }

  /** Membership as a port's row has it; an access port is untagged in its one VLAN and in no other. */
  #membership(row: Row, where: string): PortReading {
    const pvid = this.#pvid(row, where);
    const said = this.#members(row, where);
    const own = pvid === undefined || pvid === null ? undefined : [pvid];
    const untagged = said.untagged ?? own;
    const isAccess =
      own !== undefined && !isTrunk(row) && (row.vid !== undefined || /access/i.test(row.mode ?? ""));
    const tagged = said.tagged ?? (isAccess ? [] : undefined);
    return {
      ...(pvid === undefined ? {} : { pvid }),
      ...(untagged === undefined ? {} : { untagged: vidSet(untagged) }),
      ...(tagged === undefined
        ? {}
        : { tagged: vidSet(tagged).filter((vid) => untagged?.includes(vid) !== true) }),
    };
  }

  ports(rows: readonly Row[]): Reading {
    const ports = new Map<string, PortReading>();
    for (const row of rows) {
      const name = row.port ?? "";
      const port = name === "" ? null : this.#port(name);
      if (port === null) continue;
      const enabled = switched(row);
      const admit = admitOf(row.admit ?? "");
      const ingressFilter = yesNo(row.ingressFilter ?? "");
      ports.set(port.id, {
        ...this.#membership(row, name),
        ...(enabled === undefined ? {} : { enabled }),
        ...(admit === undefined ? {} : { admit }),
        ...(ingressFilter === undefined ? {} : { ingressFilter }),
      });
    }
    return { ports, vlans: null, legs: null, missed: this.#missed.sentences };
  }

  /** "1-4, ge 7, lag": the ports that a list names. */
  #portList(text: string): Port[] {
    if (isNone(text)) return [];
    return partsOfList(text)
      .map((part) => part.trim())
      .filter((part) => part !== "")
      .flatMap((part) => {
        const [, head = "", low, high] = /^(.*?)(\d+)\s*-\s*(?:\D*)(\d+)$/.exec(part) ?? [];
        if (low === undefined || high === undefined) return this.#port(part) ?? [];
        const count = Math.min(Math.max(0, Number(high) - Number(low) + 1), 10_000);
        return Array.from({ length: count }, (_, at) => `${head}${Number(low) + at}`).flatMap(
          (label) => this.#port(label) ?? [],
        );
      });
  }

  /** Ports that a VLAN's row names, by how it leaves them: two columns, or one with u and t beside each. */
  #ways(row: Row): Readonly<Record<"untagged" | "tagged", readonly Port[]>> {
    const found = { untagged: this.#portList(row.untagged ?? ""), tagged: this.#portList(row.tagged ?? "") };
    for (const part of (row.members ?? "").split(/[,;\s]+/)) {
      const [, ports, way] = MARKED.exec(part) ?? [];
      if (ports !== undefined && way !== undefined)
        found[way.toLowerCase() === "u" ? "untagged" : "tagged"].push(...this.#portList(ports));
      else if (!isNone(part)) this.#missed.say(UNMARKED);
    }
    return found;
  }

  /** The VLAN of a row; a row without one goes on with the ports of the row before. */
  #vidOf(row: Row, before: Vid | null): Vid | null {
    const text = (row.vid ?? "").trim();
    const vid = asVid(lastNumber(text) ?? 0);
    if (text === "") return before;
    if (vid === null) this.#missed.say(`"${text}" is no VLAN ID; the line was left out.`);
    return vid;
  }

  vlans(rows: readonly Row[], has: ReadonlySet<Column>): Reading {
    const names = new Map<Vid, string>();
    const members = new Map<string, { readonly untagged: Vid[]; readonly tagged: Vid[] }>(
      this.#index.portsOf(this.#device.id).map(({ id }) => [id, { untagged: [], tagged: [] }]),
    );
    let last: Vid | null = null;
    for (const row of rows) {
      last = this.#vidOf(row, last);
      if (last === null) continue;
      names.set(last, names.get(last) ?? row.name ?? "");
      const ways = this.#ways(row);
      for (const way of ["untagged", "tagged"] as const)
        for (const { id } of ways[way]) members.get(id)?.[way].push(last);
    }
    const isMarked = rows.some(({ members: text }) => MARKED.test((text ?? "").split(/[,;\s]+/)[0] ?? ""));
    const shown = (["untagged", "tagged"] as const).filter((way) => isMarked || has.has(way));
    const ports = new Map(
      [...members].map(([id, own]): [string, PortReading] => [
        id,
        Object.fromEntries(shown.map((way) => [way, vidSet(own[way])])),
      ]),
    );
    return {
      ports: shown.length === 0 ? new Map() : ports,
      vlans: [...names].map(([vid, name]) => ({ vid, name })),
      legs: null,
      missed: this.#missed.sentences,
    };
  }

  /** An address as a row has it; null where it has none. */
  #address(row: Row): Address | null {
    const text = (row.address ?? "").trim();
    const address = parseAddress(text.replace(/[/\s].*$/, ""));
    if (address === null && !isNone(text) && !/^(unassigned|dhcp|not set)$/i.test(text))
      this.#missed.say(`"${text}" is no address; the line was left out.`);
    return address;
  }

  #leg(row: Row): LegReading[] {
    const address = this.#address(row);
    if (address === null) return [];
    const name = row.port ?? row.name ?? "";
    const isVlan = row.vid !== undefined || /vlan/i.test(name);
    const vid = isVlan ? asVid(lastNumber(row.vid ?? name) ?? 0) : null;
    return [
      {
        vid,
        port: isVlan ? null : (this.#names.find(name)?.id ?? null),
        name: name === "" ? `VLAN ${vid ?? ""}`.trim() : name,
        addresses4: familyOf(address) === 4 ? [address as Ipv4] : [],
        addresses6: familyOf(address) === 6 ? [address as Ipv6] : [],
      },
    ];
  }

  addresses(rows: readonly Row[]): Reading {
    const legs = joined(rows.flatMap((row) => this.#leg(row)));
    return { ports: new Map(), vlans: null, legs, missed: this.#missed.sentences };
  }
}

/** The addresses of one leg stand on several lines. */
function joined(legs: readonly LegReading[]): LegReading[] {
  const found = new Map<string, LegReading>();
  for (const leg of legs) {
    const key = JSON.stringify([leg.vid, leg.port, leg.vid === null && leg.port === null ? leg.name : ""]);
    const known = found.get(key);
    found.set(key, {
      ...leg,
      addresses4: [...(known?.addresses4 ?? []), ...(leg.addresses4 ?? [])],
      addresses6: [...(known?.addresses6 ?? []), ...(leg.addresses6 ?? [])],
    });
  }
  // A table of one family says nothing of the other.
  const has4 = legs.some(({ addresses4 }) => addresses4 !== null && addresses4.length > 0);
  const has6 = legs.some(({ addresses6 }) => addresses6 !== null && addresses6.length > 0);
  return [...found.values()].map((leg) => ({
    ...leg,
    addresses4: has4 ? leg.addresses4 : null,
    addresses6: has6 ? leg.addresses6 : null,
  }));
}

/**
 * Reads a table pasted from a device: its ports, its VLANs with their ports, or its addresses; columns in any
 * order, cut by tabs, marks or blanks. An error is a sentence why nothing of it can be read.
 */
export function readDeviceTable(index: PlanIndex, device: Device, text: string): Result<Reading, string> {
  const cells = cellsOf(text);
  if (cells === null) return err(NO_HEADS);
  const has = new Set(cells.columns.flatMap((column) => column ?? []));
  const rows = rowsOf(cells);
  const reader = new TableReader(index, device);
  if (has.has("address") && (has.has("vid") || has.has("port") || has.has("name")))
    return ok(reader.addresses(rows));
  if (has.has("port")) return ok(reader.ports(rows));
  return has.has("vid") ? ok(reader.vlans(rows, has)) : err(NO_HEADS);
}
