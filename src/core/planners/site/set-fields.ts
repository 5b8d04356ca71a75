import { asPrefix6, isGroup, parseIpv6, parseMac, parsePrefix } from "../../address";
import { vid as asVid, type Abilities, type Device } from "../../plan";
import { countChecked } from "../count-text";
import { addRadios } from "../wireless/radios";
import type { EditContext, Refusal } from "../planner";

/** Sets what the segments table has no column for. An empty IPv6 subnet takes it away. */
export function setSegmentFields(
  { edits }: EditContext,
  id: string,
  fields: { readonly growth?: string; readonly management?: boolean; readonly prefix6?: string },
): Refusal {
  if (fields.management !== undefined) edits.patch("segment", id, { management: fields.management });
  if (fields.growth !== undefined) {
    const growth = countChecked(fields.growth, 1000);
    if (growth === null) return `"${fields.growth}" is no growth; write whole percent from 0 to 1000.`;
    edits.patch("segment", id, { growth });
  }
  if (fields.prefix6 === undefined) return null;
  const text = fields.prefix6.trim();
  const prefix = asPrefix6(parsePrefix(text));
  if (text !== "" && prefix === null)
    return `"${text}" is not an IPv6 subnet such as fd00:24:20::/64; the host part must be zero.`;
  const others = edits.need("segment", id).prefixes6.slice(1);
  edits.patch("segment", id, { prefixes6: prefix === null ? others : [prefix, ...others] });
  return null;
}

/** Sets what the register has no column for: the tag a device sends, its IPv6 address, notes. */
export function setHostFields(
  { edits }: EditContext,
  id: string,
  field: "tag" | "ipv6" | "notes",
  typed: string,
): Refusal {
  const text = typed.trim();
  switch (field) {
    case "tag": {
      const tag = /^\d{1,4}$/.test(text) ? asVid(Number(text)) : null;
      if (text !== "" && tag === null)
        return `"${text}" is not a VLAN ID; write 1 to 4094, or leave it empty for a device that sends no tag.`;
      edits.patch("host", id, { tag });
      return null;
    }
    case "ipv6": {
      const ipv6 = text === "" ? null : parseIpv6(text);
      if (text !== "" && ipv6 === null) return `"${text}" is not an IPv6 address such as fd00:24:20::10.`;
      edits.patch("host", id, { ipv6 });
      return null;
    }
    case "notes": {
      if (text.length > 2000) return "Notes have at most 2,000 characters.";
      edits.patch("host", id, { notes: text });
      return null;
    }
  }
}

export const DEVICE_FIELDS = [
  "name",
  "place",
  "model",
  "credentialsPlace",
  "serial",
  "hardwareRevision",
  "softwareFound",
  "softwareWanted",
  "registration",
  "licenceUntil",
  "supportUntil",
  "bridgeMac",
  "feed",
  "backupFeed",
  "rackUnit",
  "heightUnits",
  "poeBudget",
  "poeOneLost",
  "maxVlans",
  "notes",
] as const;
export type DeviceField = (typeof DEVICE_FIELDS)[number];
const LONGEST: Readonly<Record<DeviceField, number>> = {
  name: 80,
  place: 120,
  model: 120,
  credentialsPlace: 120,
  serial: 60,
  hardwareRevision: 40,
  softwareFound: 60,
  softwareWanted: 60,
  registration: 120,
  licenceUntil: 10,
  supportUntil: 10,
  bridgeMac: 23,
  feed: 120,
  backupFeed: 120,
  rackUnit: 3,
  heightUnits: 2,
  poeBudget: 8,
  poeOneLost: 8,
  maxVlans: 4,
  notes: 2000,
};

const watts = (mw: number | null): string => (mw === null ? "" : String(mw / 1000));

/** A device's field as it can be typed in again. */
export function deviceFieldText(device: Device, field: DeviceField): string {
  switch (field) {
    case "poeBudget":
      return watts(device.poeBudgetMw === 0 ? null : device.poeBudgetMw);
    case "poeOneLost":
      return watts(device.poeOneLostMw);
    case "maxVlans":
      return device.abilities.maxVlans === null ? "" : String(device.abilities.maxVlans);
    case "rackUnit":
      return device.rackUnit === null ? "" : String(device.rackUnit);
    case "heightUnits":
      return device.heightUnits === 0 ? "" : String(device.heightUnits);
    case "licenceUntil":
    case "supportUntil":
    case "bridgeMac":
      return device[field] ?? "";
    default:
      return device[field];
  }
}

/** The fields of a device that are numbers: watts to mW, height units, a number of VLANs. */
type NumberField = "poeBudget" | "poeOneLost" | "maxVlans" | "rackUnit" | "heightUnits";

/** What number each field takes, and what is said of any other text; whole unless it is watts. */
const NUMBERS: Record<NumberField, { least: number; most: number; sentence: string }> = {
  poeBudget: { least: 0, most: 10_000, sentence: "is no power; write watts such as 185, or leave it empty." },
  poeOneLost: {
    least: 0,
    most: 10_000,
    sentence: "is no power; write watts such as 185, or leave it empty.",
  },
  maxVlans: {
    least: 1,
    most: 4094,
    sentence: "is no number of VLANs; write 1 to 4094, or leave it empty when nobody knows.",
  },
  rackUnit: {
    least: 1,
    most: 100,
    sentence: "is no height unit; write 1 to 100, counted from the floor, or leave it empty.",
  },
  heightUnits: { least: 0, most: 60, sentence: "is no height; write height units from 0 to 60." },
};

const isNumberField = (field: DeviceField): field is NumberField => field in NUMBERS;

function editDeviceNumber({ edits }: EditContext, id: string, field: NumberField, text: string): Refusal {
  const device = edits.need("device", id);
  const { least, most, sentence } = NUMBERS[field];
  const isWatts = field === "poeBudget" || field === "poeOneLost";
  const number = /^\d{1,5}([.,]\d{1,3})?$/.test(text) ? Number(text.replace(",", ".")) : null;
  const fits = number !== null && number >= least && number <= most && (isWatts || Number.isInteger(number));
  if (text !== "" && !fits) return `"${text}" ${sentence}`;
  edits.patch("device", id, numberFields(device, field, number));
  return null;
}

/** What the device is patched with; null for an empty text. */
function numberFields(device: Device, field: NumberField, number: number | null): Partial<Device> {
  const milliwatts = number === null ? null : Math.round(number * 1000);
  switch (field) {
    case "poeBudget":
      return { poeBudgetMw: milliwatts ?? 0 };
    case "poeOneLost":
      return { poeOneLostMw: milliwatts };
    case "maxVlans":
      return { abilities: { ...device.abilities, maxVlans: number } };
    case "rackUnit":
      return {
        rackUnit: number,
        heightUnits: number !== null && device.heightUnits === 0 ? 1 : device.heightUnits,
      };
    case "heightUnits":
      return { heightUnits: number ?? 0 };
  }
}

/** What a device can do; with radios of its own it gets them. */
export function setAbilities(
  { edits, ids }: Omit<EditContext, "index">,
  id: string,
  abilities: Partial<Abilities>,
): void {
  edits.patch("device", id, { abilities: { ...edits.need("device", id).abilities, ...abilities } });
  if (abilities.radios === true && !edits.all("radio").some(({ device }) => device === id))
    addRadios(edits, ids, id);
}

/** Writes a text field of a device. */
export function editDevice(context: EditContext, id: string, field: DeviceField, typed: string): Refusal {
  const { edits } = context;
  const text = typed.trim();
  if (text.length > LONGEST[field])
    return `That is longer than the ${LONGEST[field]} characters there is room for.`;
  if (field === "name") {
    if (text === "") return "A device needs a name.";
    const other = edits
      .all("device")
      .find((device) => device.id !== id && device.name.toLowerCase() === text.toLowerCase());
    if (other !== undefined)
      return `There is a device called ${other.name} already; give this one another name.`;
  }
  if (isNumberField(field)) return editDeviceNumber(context, id, field, text);
  if (field === "bridgeMac") {
    const mac = text === "" ? null : parseMac(text);
    if (text !== "" && (mac === null || isGroup(mac)))
      return `"${text}" is not the MAC address of a device, such as 02:5a:10:3c:00:22.`;
    edits.patch("device", id, { bridgeMac: mac });
    return null;
  }
  if (field === "supportUntil" || field === "licenceUntil") return editDay(context, id, field, text);
  edits.patch("device", id, { [field]: text });
  return null;
}

function editDay(
  { edits }: EditContext,
  id: string,
  field: "supportUntil" | "licenceUntil",
  text: string,
): Refusal {
  if (text !== "" && !isDate(text))
    return `"${text}" is not a date; write it as 2027-06-30, or leave it empty.`;
  edits.patch("device", id, { [field]: text === "" ? null : text });
  return null;
}

const DAYS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

/** Whether the text is a day of the calendar, written year, month, day. */
export function isDate(text: string): boolean {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  if (match === null) return false;
  const [year, month, day] = [Number(match[1]), Number(match[2]), Number(match[3])];
  const leap = year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
  const days = (DAYS[month - 1] ?? 0) + (leap && month === 2 ? 1 : 0);
  return day >= 1 && day <= days;
}

/** Which of its own legs a device asks its servers from (sign-in, time); null for the first with an address. */
export function setAsksFrom({ edits }: Pick<EditContext, "edits">, id: string, leg: string | null): Refusal {
  if (leg !== null && edits.get("interface", leg)?.device !== id) return "Choose one of its own addresses.";
  edits.patch("device", id, { asksFrom: leg });
  return null;
}

/** A note on a port, such as what it is kept for. */
export function notePorts({ edits }: EditContext, ports: readonly string[], text: string): Refusal {
  if (text.trim().length > 120) return "A note has at most 120 characters.";
  for (const id of ports) edits.patch("port", id, { note: text.trim() });
  return null;
}

/** A cable's length in metres (up to two decimals, or empty) and its label. */
export function editLink(
  { edits }: EditContext,
  id: string,
  field: "length" | "label",
  typed: string,
): Refusal {
  const text = typed.trim();
  if (field === "label") {
    if (text.length > 120) return "A label has at most 120 characters.";
    edits.patch("link", id, { label: text });
    return null;
  }
  const metres = /^\d{1,5}([.,]\d{1,2})?$/.test(text) ? Number(text.replace(",", ".")) : null;
  if (text !== "" && metres === null)
    return `"${text}" is no length; write metres such as 38 or 2.5, or leave it empty.`;
  edits.patch("link", id, { lengthCm: metres === null ? null : Math.round(metres * 100) });
  return null;
}
