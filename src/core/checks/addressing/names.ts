import { nameOf, type Derived, type Host, type PlanIndex } from "../../plan";
import { asLabel, isHostName } from "../../planners";
import { check, localCheck, type Found } from "../check";
import { type Repair, counted, listed } from "../../repairs";

/**
 * How many there are, and the first few by id: a list of fifty thousand would be sorted at every edit for
 * nothing.
 */
interface Unfit {
  readonly count: number;
  readonly first: readonly string[];
}
const SHOWN = 3;

/** Hosts whose name is no host name; an edit looks at the hosts it changed. */
const UNFIT: Derived<ReadonlySet<string>> = {
  reads: ["host"],
  make: (index) => {
    const unfit = new Set<string>();
    for (const host of index.plan.host.values()) if (!isHostName(host.name)) unfit.add(host.id);
    return unfit;
  },
  follow: (previous, _index, changes) => {
    // Copied only when an edit makes a name fit or unfit: hardly any does, and a copy takes every name in hand.
    let unfit: Set<string> | null = null;
    for (const change of changes) {
      if (change.kind !== "host") continue;
      const is = change.after !== null && !isHostName(change.after.name);
      if (is === (unfit ?? previous).has(change.id)) continue;
      unfit ??= new Set(previous);
      if (is) unfit.add(change.id);
      else unfit.delete(change.id);
    }
    return unfit ?? previous;
  },
};

/** The first `most` by text of a set. */
function smallest(ids: ReadonlySet<string>, most: number): string[] {
  const found: string[] = [];
  for (const id of ids) {
    if (found.length === most && id >= (found.at(-1) ?? "")) continue;
    found.push(id);
    found.sort();
    if (found.length > most) found.pop();
  }
  return found;
}

export const hostNameNotAllowed = check<Unfit>({
  code: "host-name-not-allowed",
  severity: "note",
  family: "addresses",
  title: "Names that can't be host names",
  why:
    "A host name has letters, digits and hyphens, none of them a hyphen at either end, at most " +
    "63 (RFC 1123 section 2.1). Device pages refuse others, and in DNS they stand changed.",
  reads: ["host"],
  find: (index): Found<Unfit>[] => {
    const unfit = index.derived(UNFIT);
    const first = smallest(unfit, SHOWN);
    // One for the site: a hundred of them would hide everything else.
    return first.length === 0
      ? []
      : [
          {
            subjects: first.map((id) => ({ kind: "host" as const, id })),
            data: { count: unfit.size, first },
          },
        ];
  },
  describe: ({ count, first }, index) => {
    const example = nameOf(index, "host", first[0] ?? "");
    const names = first.map((id) => `"${nameOf(index, "host", id)}"`);
    return (
      `${counted(count, "name is no host name", "names are no host names")}: ` +
      `${count > SHOWN ? `${names.join(", ")} and ${count - SHOWN} more` : listed(names)}. ` +
      `In DNS "${example}" stands as ${asLabel(example) || "nothing"}.`
    );
  },
  repairs: ({ count }, index): Repair[] => [
    {
      label: count === 1 ? "Write it as a host name" : `Write all ${count} as host names`,
      planner: "name-as-host",
      args: { hosts: count },
      edit: (edits) => {
        const hosts = [...index.derived(UNFIT)].sort();
        const taken = new Set(edits.all("host").map((host) => host.name.toLowerCase()));
        for (const id of hosts) {
          const host = edits.get("host", id);
          if (host === undefined) continue;
          const label =
            asLabel(host.name) || asLabel(nameOf(index, "segment", host.segment ?? "")) || "device";
          let name = label.slice(0, 63);
          for (let n = 2; taken.has(name); n += 1) name = `${label.slice(0, 58)}-${n}`;
          taken.add(name);
          edits.patch("host", id, { name });
        }
      },
    },
  ],
});

interface Twice {
  readonly name: string;
  readonly hosts: readonly string[];
}

/** Who has a name, in lower case. Nearly every name has one owner, so only the others get a list. */
type Owners = ReadonlyMap<string, string | readonly string[]>;
const OWNERS: Derived<Owners> = {
  reads: ["host"],
  make: (index) => {
    const owners = new Map<string, string | readonly string[]>();
    for (const host of index.plan.host.values()) add(owners, host.name, host.id);
    return owners;
  },
  follow: (previous, _index, changes) => {
    const renames = changes.filter(
      (change) => change.kind === "host" && change.before?.name !== change.after?.name,
    );
    if (renames.length === 0) return previous;
    const owners = new Map(previous);
    for (const change of renames) {
      if (change.kind !== "host") continue;
      if (change.before !== null) take(owners, change.before.name, change.id);
      if (change.after !== null) add(owners, change.after.name, change.id);
    }
    return owners;
  },
};

function add(owners: Map<string, string | readonly string[]>, name: string, id: string): void {
  const key = name.toLowerCase();
  const known = owners.get(key);
  if (known === undefined) owners.set(key, id);
  else owners.set(key, typeof known === "string" ? [known, id] : [...known, id]);
}

function take(owners: Map<string, string | readonly string[]>, name: string, id: string): void {
  const key = name.toLowerCase();
  const known = owners.get(key);
  const rest = typeof known === "string" || known === undefined ? [] : known.filter((other) => other !== id);
  if (rest.length === 0) owners.delete(key);
  else owners.set(key, rest.length === 1 ? (rest[0] ?? id) : rest);
}

function sameName(index: PlanIndex, name: string): readonly string[] {
  const known = index.derived(OWNERS).get(name.toLowerCase());
  if (known === undefined) return [];
  if (typeof known === "string") return [known];
  return known;
}

export const hostNameTwice = localCheck<Twice, "host">({
  code: "host-name-twice",
  severity: "warn",
  family: "addresses",
  title: "Two devices have one name",
  why: "DNS and the DHCP server know a device by its name; the one that asks later takes it from the other.",
  reads: ["host"],
  of: "host",
  candidates: (index) => {
    const found: Host[] = [];
    for (const owners of index.derived(OWNERS).values())
      if (typeof owners !== "string") found.push(...owners.flatMap((id) => index.plan.host.get(id) ?? []));
    return found;
  },
  touched: (index, change) =>
    [change.before, change.after].flatMap((host) =>
      host === null || change.kind !== "host" ? [] : sameName(index, (host as Host).name),
    ),
  findAt: (index, host): Found<Twice>[] => {
    const same = sameName(index, host.name);
    // Said once, at the one that comes first.
    if (same.length < 2 || same.some((other) => other < host.id)) return [];
    const hosts = [...same].sort();
    return [
      { subjects: hosts.map((id) => ({ kind: "host" as const, id })), data: { name: host.name, hosts } },
    ];
  },
  describe: ({ name, hosts }, index) =>
    `${hosts.length} devices are called ${name}, in ` +
    listed([
      ...new Set(hosts.map((id) => nameOf(index, "segment", index.plan.host.get(id)?.segment ?? ""))),
    ]) +
    ".",
  repairs: ({ name, hosts }, index) =>
    hosts
      .slice(1)
      .map((id): Repair => {
        let n = 2;
        while (sameName(index, `${name}-${n}`).length > 0) n += 1;
        return {
          label: `Call ${index.plan.host.get(id)?.place || "the second"}'s ${name}-${n}`,
          planner: "rename-host",
          args: { host: id },
          edit: (edits) => edits.patch("host", id, { name: `${name}-${n}` }),
        };
      })
      .slice(0, 2),
});

interface Differs {
  readonly device: string;
  readonly entry: string;
  readonly vlan: string;
}

export const vlanNameDiffers = check<Differs>({
  code: "vlan-name-differs",
  severity: "warn",
  family: "ports",
  title: "A VLAN has another name on one device",
  why: "Whoever reads the device's own list takes it for another VLAN, and paints the wrong port.",
  reads: ["deviceVlan", "device", "vlan"],
  find: (index): Found<Differs>[] =>
    [...index.plan.deviceVlan.values()].flatMap((entry): Found<Differs>[] => {
      const vlan = index.vlanOf(index.plan.device.get(entry.device)?.domain ?? null, entry.vid);
      return vlan === undefined || entry.name === "" || vlan.name === entry.name
        ? []
        : [
            {
              subjects: [
                { kind: "device", id: entry.device },
                { kind: "vlan", id: vlan.id },
              ],
              data: { device: entry.device, entry: entry.id, vlan: vlan.id },
            },
          ];
    }),
  describe: ({ device, entry, vlan }, index) => {
    const own = index.plan.deviceVlan.get(entry);
    return (
      `${nameOf(index, "device", device)} calls VLAN ${own?.vid ?? ""} ` +
      `"${own?.name ?? ""}"; in the plan it is "${index.plan.vlan.get(vlan)?.name ?? ""}".`
    );
  },
  repairs: ({ device, entry, vlan }, index) => {
    const wanted = index.plan.vlan.get(vlan)?.name ?? "";
    const own = index.plan.deviceVlan.get(entry)?.name ?? "";
    return [
      {
        label: `Call it "${wanted}" on ${nameOf(index, "device", device)}`,
        planner: "rename-device-vlan",
        args: { entry },
        edit: (edits) => edits.patch("deviceVlan", entry, { name: wanted }),
      },
      ...(own === ""
        ? []
        : [
            {
              label: `Call it "${own}" everywhere`,
              planner: "rename-vlan",
              args: { vlan },
              edit: (edits) => edits.patch("vlan", vlan, { name: own }),
            } satisfies Repair,
          ]),
    ];
  },
});

interface NotCreated {
  readonly device: string;
  readonly vid: number;
}

export const vlanNotCreated = check<NotCreated>({
  code: "vlan-not-created",
  severity: "stop",
  family: "ports",
  title: "A port carries a VLAN that its device has not created",
  why: "The device drops frames of a VLAN that is not in its own list, whatever the port says.",
  reads: ["deviceVlan", "device", "port"],
  find: (index): Found<NotCreated>[] =>
    [...index.groups("deviceVlansByDevice")].flatMap(([device, entries]) => {
      const created = new Set<number>(entries.map((entry) => entry.vid));
      const carried = new Set(
        index.portsOf(String(device)).flatMap((port) => [...port.untagged, ...port.tagged]),
      );
      return [...carried]
        .filter((vid) => !created.has(vid))
        .sort((a, b) => a - b)
        .map((vid) => ({
          subjects: [{ kind: "device" as const, id: String(device) }],
          data: { device: String(device), vid },
          apart: String(vid),
        }));
    }),
  describe: ({ device, vid }, index) =>
    `${nameOf(index, "device", device)} has ports in VLAN ${vid} and has not created it.`,
  repairs: ({ device, vid }, index): Repair[] => {
    const vlan = index.vlanOf(index.plan.device.get(device)?.domain ?? null, vid);
    return vlan === undefined
      ? []
      : [
          {
            label: `Create ${vlan.name} (${vid}) on it`,
            planner: "create-device-vlan",
            args: { device, vid },
            edit: (edits, ids) => {
              edits.put("deviceVlan", { id: ids(), device, vid: vlan.vid, name: vlan.name });
            },
          },
        ];
  },
});

interface TooLong {
  readonly vlan: string;
  readonly device: string;
  readonly most: number;
}

export const vlanNameTooLong = check<TooLong>({
  code: "vlan-name-too-long",
  severity: "warn",
  family: "ports",
  title: "A VLAN's name is longer than a device takes",
  why: "The device cuts it or refuses it, and the names then differ from place to place.",
  reads: ["vlan", "device", "port"],
  find: (index): Found<TooLong>[] =>
    [...index.plan.device.values()].flatMap((device): Found<TooLong>[] => {
      const { vlanNameLimit: most } = device;
      if (most === null) return [];
      const vids = new Set(index.portsOf(device.id).flatMap((port) => [...port.untagged, ...port.tagged]));
      return [...vids].flatMap((vid): Found<TooLong>[] => {
        const vlan = index.vlanOf(device.domain, vid);
        return vlan === undefined || vlan.name.length <= most
          ? []
          : [
              {
                subjects: [
                  { kind: "vlan", id: vlan.id },
                  { kind: "device", id: device.id },
                ],
                data: { vlan: vlan.id, device: device.id, most },
              },
            ];
      });
    }),
  describe: ({ vlan, device, most }, index) =>
    `"${index.plan.vlan.get(vlan)?.name ?? ""}" has ${index.plan.vlan.get(vlan)?.name.length ?? 0} ` +
    `characters; ${nameOf(index, "device", device)} takes ${most}.`,
  repairs: ({ vlan, most }, index): Repair[] => {
    const short = (index.plan.vlan.get(vlan)?.name ?? "").slice(0, most).trim();
    return short === ""
      ? []
      : [
          {
            label: `Call the VLAN "${short}" everywhere`,
            planner: "rename-vlan",
            args: { vlan },
            edit: (edits) => edits.patch("vlan", vlan, { name: short }),
          },
        ];
  },
});
