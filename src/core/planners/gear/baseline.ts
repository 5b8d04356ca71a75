import { equal } from "../../kernel";
import {
  isAdministered,
  type Baseline,
  type Device,
  type Lack,
  type Plan,
  type PlanIndex,
  type WayIn,
} from "../../plan";
import { pasteInto } from "../paste-rows";
import type { EditContext, Refusal } from "../planner";
import { editDevice, deviceFieldText, type DeviceField } from "../site/set-fields";
import {
  BASELINE_FIELDS,
  baselineText,
  lacksText,
  readBaseline,
  readLacks,
  type BaselineField,
} from "./baseline-text";

/** What a field of a baseline needs of gear; null for what all gear that is administered does. */
const NEEDS: Readonly<Record<BaselineField, Lack | null>> = {
  waysIn: null,
  idleMinutes: "idle",
  passwordLength: "passwords",
  passwordDays: "passwords",
  nameServers: "names",
  timeServers: "time",
  logTo: "log",
  clock: null,
  uplinks: null,
  describes: "descriptions",
};
const WAY_NEEDS: Partial<Readonly<Record<WayIn, Lack>>> = { https: "https", ssh: "ssh", snmpV3: "snmpV3" };

const isUndecided = (value: Baseline[BaselineField]): boolean =>
  value === null || value === "open" || (Array.isArray(value) && value.length === 0);

/** Whether a field says nothing yet. */
export const isOpen = (baseline: Baseline, field: BaselineField): boolean => isUndecided(baseline[field]);

/**
 * What the site's baseline comes to on a device: what it is known not to do is left out of it. Ways in that it
 * lacks are left out one by one.
 */
export function baselineFor(wanted: Baseline, { abilities: { lacks } }: Pick<Device, "abilities">): Baseline {
  const waysIn = wanted.waysIn.filter((way) => {
    const need = WAY_NEEDS[way];
    return need === undefined || !lacks.includes(need);
  });
  const lacking = (field: BaselineField) => {
    const need = NEEDS[field];
    return need !== null && lacks.includes(need);
  };
  return {
    ...wanted,
    waysIn,
    idleMinutes: lacking("idleMinutes") ? null : wanted.idleMinutes,
    passwordLength: lacking("passwordLength") ? null : wanted.passwordLength,
    passwordDays: lacking("passwordDays") ? null : wanted.passwordDays,
    nameServers: lacking("nameServers") ? [] : wanted.nameServers,
    timeServers: lacking("timeServers") ? [] : wanted.timeServers,
    logTo: lacking("logTo") ? [] : wanted.logTo,
    describes: lacking("describes") && wanted.describes === "yes" ? "open" : wanted.describes,
  };
}

/** Fields in which a device is set otherwise than the site has decided. */
export function offBaseline({ plan }: { readonly plan: Plan }, device: Device): BaselineField[] {
  if (!isAdministered(device)) return [];
  const wanted = baselineFor(plan.site.baseline, device);
  return BASELINE_FIELDS.map(([field]) => field).filter(
    (field) => !isOpen(plan.site.baseline, field) && !equal(device.baseline[field], wanted[field]),
  );
}

/** What the site has decided and a device can't do. */
export function beyondDevice({ plan }: { readonly plan: Plan }, device: Device): BaselineField[] {
  if (!isAdministered(device)) return [];
  const wanted = baselineFor(plan.site.baseline, device);
  return BASELINE_FIELDS.map(([field]) => field).filter(
    (field) => !equal(wanted[field], plan.site.baseline[field]),
  );
}

/**
 * Decides a field for the whole site. Devices that followed the site so far go along; those that were set
 * otherwise stay as they are.
 */
function setSiteBaseline(
  { edits }: Pick<EditContext, "edits">,
  field: BaselineField,
  typed: string,
): Refusal {
  const read = readBaseline(field, typed);
  if (typeof read === "string") return read;
  const { site } = edits.plan;
  const [was, is] = [site.baseline, { ...site.baseline, ...read }];
  edits.put("site", { ...edits.need("site", site.id), baseline: is });
  for (const device of edits.all("device")) {
    if (!isAdministered(device) || !equal(device.baseline[field], baselineFor(was, device)[field])) continue;
    edits.patch("device", device.id, {
      baseline: { ...device.baseline, [field]: baselineFor(is, device)[field] },
    });
  }
  return null;
}

/** Sets a field on one device: an exception, where the site has decided otherwise. */
function setDeviceBaseline(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  field: BaselineField,
  typed: string,
): Refusal {
  const device = edits.need("device", id);
  if (!isAdministered(device)) return `${device.name} has no settings of its own to administer.`;
  const read = readBaseline(field, typed);
  if (typeof read === "string") return read;
  edits.patch("device", id, { baseline: { ...device.baseline, ...read } });
  return null;
}

/** Sets devices as the site has decided, in some fields or in all that it has decided. */
export function toBaseline(
  { edits }: Pick<EditContext, "edits">,
  devices: readonly string[],
  only: readonly BaselineField[] | null = null,
): void {
  for (const id of devices) {
    const device = edits.need("device", id);
    const fields = offBaseline(edits, device).filter((field) => only === null || only.includes(field));
    const wanted = baselineFor(edits.plan.site.baseline, device);
    edits.patch("device", id, {
      baseline: {
        ...device.baseline,
        ...Object.fromEntries(fields.map((field) => [field, wanted[field]])),
      },
    });
  }
}

/** Says what a device's software does not do. */
function setLacks({ edits }: Pick<EditContext, "edits">, id: string, text: string): Refusal {
  const lacks = readLacks(text.trim());
  if (typeof lacks === "string") return lacks;
  const { abilities } = edits.need("device", id);
  edits.patch("device", id, { abilities: { ...abilities, lacks } });
  return null;
}

/** What a device is and runs: written beside how it is administered. */
export const IDENTITY_FIELDS = [
  ["serial", "Serial number", "from its case"],
  ["hardwareRevision", "Hardware revision", ""],
  ["softwareFound", "Software found", "4.1.0"],
  ["softwareWanted", "Software wanted", "4.2.3"],
  ["registration", "Registered, licence", ""],
  ["licenceUntil", "Licence until", "2027-06-30"],
  ["supportUntil", "Support until", "2027-06-30"],
  ["credentialsPlace", "Credentials kept", "the place, never the password"],
] as const satisfies readonly (readonly [DeviceField, string, string])[];

/** The column of a table of gear: how it is administered, what it lacks, what it is. */
export type GearColumn = BaselineField | "lacks" | (typeof IDENTITY_FIELDS)[number][0];

const isBaseline = (column: GearColumn): column is BaselineField =>
  BASELINE_FIELDS.some(([field]) => field === column);

/** The columns with their words, in the order in which they are pasted and saved. */
export const GEAR_COLUMNS: readonly (readonly [GearColumn, string])[] = [
  ...BASELINE_FIELDS.map(([field, word]) => [field, word] as const),
  ["lacks", "Does not do"],
  ...IDENTITY_FIELDS.map(([field, word]) => [field, word] as const),
];

/** A cell as it can be written in again. */
export function gearText(device: Device, column: GearColumn): string {
  if (column === "lacks") return lacksText(device);
  return isBaseline(column) ? baselineText(device.baseline, column) : deviceFieldText(device, column);
}

/** Writes a cell of a device. */
function editGearCell(context: EditContext, id: string, column: GearColumn, text: string): Refusal {
  if (column === "lacks") return setLacks(context, id, text);
  return isBaseline(column)
    ? setDeviceBaseline(context, id, column, text)
    : editDevice(context, id, column, text === "–" ? "" : text);
}

/** What the first row of the table is called, which is the whole site's. */
export const SITE_ROW = "Whole site";

/** Gear as a table of texts, heads first, the site's own row after them. */
export function baselineTable(index: PlanIndex, devices: readonly Device[]): string[][] {
  const { baseline } = index.plan.site;
  return [
    ["Device", ...GEAR_COLUMNS.map(([, word]) => word)],
    [SITE_ROW, ...GEAR_COLUMNS.map(([column]) => (isBaseline(column) ? baselineText(baseline, column) : ""))],
    ...devices.map((device) => [device.name, ...GEAR_COLUMNS.map(([column]) => gearText(device, column))]),
  ];
}

/** Writes a cell of a device, or of the whole site, which is the row with the site's own id. */
function editRow(context: EditContext, id: string, [column, text]: readonly [GearColumn, string]): Refusal {
  if (id !== context.edits.plan.site.id) return editGearCell(context, id, column, text);
  if (!isBaseline(column))
    return text.trim() === "" ? null : `${columnWord(column)} is of one device, not of the whole site.`;
  return setSiteBaseline(context, column, text);
}

const columnWord = (column: GearColumn): string =>
  GEAR_COLUMNS.find(([key]) => key === column)?.[1] ?? column;

/**
 * Writes a block of texts onto devices and the whole site (the row with the site's id), in the order of
 * `GEAR_COLUMNS`.
 */
export function pasteGear(
  context: EditContext,
  rows: readonly (readonly string[])[],
  from: GearColumn,
  onto: readonly string[],
): Refusal {
  return pasteInto(GEAR_COLUMNS, { rows, from, onto }, (id, cells) => {
    if (id === null) return "There are more rows than devices; devices are added on Hardware.";
    for (const cell of cells) {
      const refusal = editRow(context, id, cell);
      if (refusal !== null) return refusal;
    }
    return null;
  });
}
