import { deviceData, deviceJson, deviceTable, yangText } from "../device-sheet";
import type { PlanIndex } from "../plan";
import { devicesInOrder } from "../sheets";
import { accessListText, ruleListsText } from "./access-lists";
import { planFileJsonSchema } from "./json-schema";
import { SITE_TABLES } from "./site-tables";
import { hostsFile, zoneFiles } from "./zone-file";

/** What an export is before it is written: rows of texts for a spreadsheet, heads first, or a text. */
export type ExportContent =
  | { readonly is: "table"; readonly rows: readonly (readonly string[])[] }
  | { readonly is: "text"; readonly text: string }
  | { readonly is: "refused"; readonly sentence: string };

/** A file that leaves a plan. */
export interface SiteExport {
  readonly what: string;
  /** The end of its file's name. */
  readonly file: string;
  readonly type: `${string}/${string}`;
  readonly about: string;
  readonly make: (index: PlanIndex) => ExportContent;
}

export const CSV_TYPE = "text/csv;charset=utf-8";
const PLAIN = "text/plain;charset=utf-8";
const YANG = "application/yang-data+json";

const asText = (text: string): ExportContent => ({ is: "text", text });
const asTable = (rows: readonly (readonly string[])[]): ExportContent => ({ is: "table", rows });

function accessLists(index: PlanIndex): ExportContent {
  const written = accessListText(index);
  return "text" in written ? asText(written.text) : { is: "refused", sentence: written.refusal };
}

/** The files that every plan has, in the order in which a job comes upon them. */
export const SITE_EXPORTS: readonly SiteExport[] = [
  {
    what: "Schema of plan files",
    file: "plan.schema.json",
    type: "application/schema+json",
    about: "What a plan file has to look like (JSON Schema), for programs that write or check one.",
    make: () => asText(JSON.stringify(planFileJsonSchema(), null, 2)),
  },
  ...SITE_TABLES.map(({ title, file, about, make }): SiteExport => ({
    what: title,
    file,
    type: CSV_TYPE,
    about,
    make: (index) => asTable(make(index)),
  })),
  {
    what: "Rules as JSON",
    file: "rules.json",
    type: "application/json",
    about: "The same lists for a program, in the words of the table. Read again in the same place.",
    make: (index) => asText(ruleListsText(index)),
  },
  {
    what: "Access lists",
    file: "access-lists.json",
    type: YANG,
    about:
      "The same as YANG data (RFC 8519): subnets for zones, IPv4 and IPv6 apart, what no list may stop " +
      "(RFC 4890) in front. Answers pass by the device’s own memory; rules with hours are not in it.",
    make: accessLists,
  },
  {
    what: "Hosts file",
    file: "hosts",
    type: PLAIN,
    about: "Every fixed address with its name, for a device that asks no server.",
    make: (index) => asText(hostsFile(index)),
  },
];

const inFileName = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");

/** The three files of what is entered on each device, as table, as JSON and as YANG data. */
export function deviceExports(index: PlanIndex): SiteExport[] {
  return devicesInOrder(index).flatMap((device, at): SiteExport[] => {
    const data = deviceData(index, device);
    const name = `${at + 1}-${inFileName(data.hostName || "device")}-sheet`;
    const of = (ending: string, type: SiteExport["type"], make: () => ExportContent): SiteExport => ({
      what: `Sheet of ${device.name}`,
      file: `${name}.${ending}`,
      type,
      about: `What is entered on ${device.name}.`,
      make,
    });
    return [
      of("csv", CSV_TYPE, () => asTable(deviceTable(data))),
      of("json", "application/json", () => asText(deviceJson(data))),
      of("yang.json", YANG, () => asText(yangText(data))),
    ];
  });
}

/** The zone files of a plan at a revision, which is their serial. */
export const zoneExports = (index: PlanIndex, revision: number): SiteExport[] =>
  (zoneFiles(index, revision)?.files ?? []).map(({ zone, text }): SiteExport => ({
    what: `Zone ${zone}`,
    file: `${zone}.zone`,
    type: PLAIN,
    about: "A zone file for a name server (RFC 1035).",
    make: () => asText(text),
  }));
