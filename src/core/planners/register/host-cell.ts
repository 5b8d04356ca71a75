import { parseMac } from "../../address";
import { hasRadios, BLANK_HOST, HOST_KINDS, type PlanEdits, type Host } from "../../plan";
import type { EditContext, Refusal } from "../planner";
import { addressInSegment } from "../segments/segment-cell";

export const HOST_COLUMNS = ["address", "name", "kind", "segment", "how", "mac", "port", "place"] as const;
export type HostColumn = (typeof HOST_COLUMNS)[number];

export const MANNER_WORDS = { typed: "static", reserved: "reserved", dynamic: "by DHCP" } as const;
export const HOST_KIND_WORDS = {
  pc: "PC",
  laptop: "laptop",
  phone: "phone",
  printer: "printer",
  camera: "camera",
  recorder: "recorder",
  cardTerminal: "card terminal",
  doorController: "door controller",
  sensor: "sensor",
  television: "television",
  console: "game console",
  controller: "controller (PLC)",
  operatorPanel: "operator panel",
  drive: "drive",
  ioIsland: "I/O island",
  scanner: "scanner",
  server: "server",
  storage: "storage",
  mobile: "mobile",
  imaging: "imaging device",
  other: "other",
} as const satisfies Record<Host["kind"], string>;

const SPELLINGS: readonly (readonly [Host["manner"], RegExp])[] = [
  ["typed", /^(static|fixed|manual|typed( in)?)$/],
  ["dynamic", /^(dhcp|automatic)$/],
  ["reserved", /^reserv/],
];

/** How an address comes to a device, in the register's words or common ones; null for any other text. */
export function parseManner(text: string): Host["manner"] | null {
  const wanted = text.trim().toLowerCase();
  const own = (Object.keys(MANNER_WORDS) as Host["manner"][]).find(
    (manner) => MANNER_WORDS[manner].toLowerCase() === wanted || manner === wanted,
  );
  return own ?? SPELLINGS.find(([, spelt]) => spelt.test(wanted))?.[0] ?? null;
}

type CellEdit = (context: EditContext, host: Host, text: string) => Refusal;
const empty = (text: string) => text === "" || text === "–" || text === "-";

/** The port that "Upper switch 13" or "Upper switch port 13" means. */
export function portNamed(edits: PlanEdits, text: string): string | null {
  const wanted = text
    .toLowerCase()
    .replace(/\s+port\s+/, " ")
    .trim();
  const devices = new Map(edits.all("device").map((d) => [d.id, d.name.toLowerCase()]));
  return (
    edits.all("port").find((p) => `${devices.get(p.device) ?? ""} ${p.label.toLowerCase()}` === wanted)?.id ??
    null
  );
}

/**
 * The wireless name, and where it is joined, that "Staff" or "Staff at Hall AP" means; null for any other
 * text.
 */
function wirelessNamed(
  edits: PlanEdits,
  text: string,
): { readonly ssid: string; readonly accessPoint: string | null } | null {
  return joinedAt(
    text,
    (name) => edits.all("ssid").find((ssid) => ssid.name.toLowerCase() === name)?.id,
    (name) =>
      edits.all("device").find((device) => hasRadios(device) && device.name.toLowerCase() === name)?.id,
  );
}

/** The same with the look-ups given, both by names in small letters: a wireless name may hold " at " itself. */
export function joinedAt(
  text: string,
  ssidNamed: (name: string) => string | undefined,
  pointNamed: (name: string) => string | undefined,
): { readonly ssid: string; readonly accessPoint: string | null } | null {
  const wanted = text.toLowerCase();
  const whole = ssidNamed(wanted);
  if (whole !== undefined) return { ssid: whole, accessPoint: null };
  for (let at = wanted.indexOf(" at "); at >= 0; at = wanted.indexOf(" at ", at + 1)) {
    const [ssid, point] = [ssidNamed(wanted.slice(0, at)), pointNamed(wanted.slice(at + 4))];
    if (ssid !== undefined && point !== undefined) return { ssid, accessPoint: point };
  }
  return null;
}

const EDITS: { readonly [C in HostColumn]: CellEdit } = {
  address: ({ edits }, host, text) => {
    if (empty(text)) {
      edits.patch("host", host.id, { ipv4: null, manner: "dynamic" });
      return null;
    }
    const segment = host.segment === null ? undefined : edits.get("segment", host.segment);
    const address = segment === undefined ? null : addressInSegment(segment, text);
    if (segment === undefined) return `Give ${host.name} a segment before its address.`;
    if (address === null || typeof address !== "number")
      return (
        `"${text}" is not an IPv4 address; write ${segment.name}'s ` +
        "address whole or its last part, such as .34."
      );
    const leased = host.mac === null ? "typed" : "reserved";
    edits.patch("host", host.id, {
      ipv4: address,
      manner: host.manner === "dynamic" ? leased : host.manner,
    });
    return null;
  },
  name: ({ edits }, host, text) => {
    if (text === "" || text.length > 80) return "A device's name has 1 to 80 characters.";
    edits.patch("host", host.id, { name: text });
    return null;
  },
  kind: ({ edits }, host, text) => {
    const kind = HOST_KINDS.find(
      (k) =>
        k.toLowerCase() === text.toLowerCase() || HOST_KIND_WORDS[k].toLowerCase() === text.toLowerCase(),
    );
    if (kind === undefined)
      return `"${text}" is not a kind of device here; one of: ${Object.values(HOST_KIND_WORDS).join(", ")}.`;
    edits.patch("host", host.id, { kind });
    return null;
  },
  segment: ({ edits }, host, text) => {
    const segment = edits
      .all("segment")
      .find((s) => s.name.toLowerCase() === text.toLowerCase() || s.mark === text.toUpperCase());
    if (!empty(text) && segment === undefined) return `There is no segment called "${text}".`;
    edits.patch("host", host.id, { segment: segment?.id ?? null });
    return null;
  },
  how: ({ edits }, host, text) => {
    const manner = parseManner(text);
    if (manner === null) return `"${text}" is none of: static, reserved, by DHCP.`;
    if (manner === "reserved" && host.mac === null)
      return `A reservation needs ${host.name}'s MAC address; enter it first.`;
    edits.patch("host", host.id, manner === "dynamic" ? { manner, ipv4: null } : { manner });
    return null;
  },
  mac: ({ edits }, host, text) => {
    const mac = empty(text) ? null : parseMac(text);
    if (mac === null && !empty(text)) return `"${text}" is not a MAC address such as 02:5a:10:3c:00:22.`;
    edits.patch("host", host.id, { mac });
    return null;
  },
  port: ({ edits }, host, text) => {
    if (empty(text)) {
      edits.patch("host", host.id, { attachment: { at: "unplaced" } });
      return null;
    }
    const wireless = wirelessNamed(edits, text);
    const behind = /^behind (.+)$/i.exec(text)?.[1]?.toLowerCase();
    const phone =
      behind === undefined
        ? undefined
        : edits.all("host").find((h) => h.name.toLowerCase() === behind && h.id !== host.id);
    const port = portNamed(edits, text);
    if (wireless === null && phone === undefined && port === null)
      return (
        `"${text}" is no port, wireless name or device here; write ` +
        `"Upper switch 13", "Staff at Hall AP" or "behind Phone 3".`
      );
    const wired = port === null ? null : { at: "port" as const, port };
    const joins = wireless === null ? null : { at: "ssid" as const, ...wireless };
    const attachment = wired ?? joins ?? { at: "behind" as const, host: phone?.id ?? "" };
    edits.patch("host", host.id, { attachment });
    return null;
  },
  place: ({ edits }, host, text) => {
    if (text.length > 120) return "A place has at most 120 characters.";
    edits.patch("host", host.id, { place: text });
    return null;
  },
};

/** Writes one cell of the register from its text; a refusal names what was typed and changes nothing. */
export function editHostCell(
  context: EditContext,
  hostId: string,
  column: HostColumn,
  text: string,
): Refusal {
  return EDITS[column](context, context.edits.need("host", hostId), text.trim());
}

/** A new end device, by DHCP until an address is given. */
export function addHost({ edits, ids }: EditContext, fields: Partial<Host> & Pick<Host, "name">): Refusal {
  if (fields.name.trim() === "" || fields.name.length > 80)
    return "Give the device a name of 1 to 80 characters.";
  edits.put("host", { ...BLANK_HOST, id: ids(), ...fields });
  return null;
}
