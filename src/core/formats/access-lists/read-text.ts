import { z } from "zod";
import type { Device, PlanIndex } from "../../plan";
import { readRuleTable, type RulesRead } from "../../planners";
import { grouped } from "../../kernel";
import { ruleTable } from "../../sheets";
import { rulesOfLists, type ReadList } from "./read";
import { listName } from "./write";

const FAMILIES = { "ipv4-acl-type": 4, "ipv6-acl-type": 6 } as const;
const listSchema = z.strictObject({
  name: z.string().min(1).max(64),
  type: z.string().max(80).optional(),
  aces: z.strictObject({ ace: z.array(z.unknown()).max(200_000).default([]) }).optional(),
});
const accessSchema = z.strictObject({
  "ietf-access-control-list:acls": z.strictObject({ acl: z.array(listSchema).max(1000).default([]) }),
});

const ruleSchema = z.strictObject({
  from: z.union([z.string(), z.array(z.string()).max(64)]).optional(),
  to: z.union([z.string(), z.array(z.string()).max(64)]).optional(),
  services: z.union([z.string(), z.array(z.string()).max(32)]).optional(),
  action: z.enum(["accept", "drop", "reject"]).optional(),
  enabled: z.boolean().optional(),
  log: z.boolean().optional(),
  note: z.string().optional(),
});
const plainSchema = z.strictObject({
  device: z.string().optional(),
  list: z.string().optional(),
  rules: z.array(ruleSchema).max(50_000),
});
const severalSchema = z.strictObject({ lists: z.array(plainSchema).max(5000) });

const HEADS = ["From", "To", "Services", "Action", "On", "Recorded", "Note"];
const cell = (value: string | readonly string[] | undefined): string =>
  typeof value === "string" ? value : (value ?? []).join(", ");
const yes = (value: boolean): string => (value ? "yes" : "no");

/** The rules as the table that they would be: one reader says what a name is. */
const asTable = (rules: readonly z.output<typeof ruleSchema>[]): string[][] => [
  HEADS,
  ...rules.map((rule) => [
    cell(rule.from),
    cell(rule.to),
    cell(rule.services),
    rule.action ?? "",
    yes(rule.enabled ?? true),
    yes(rule.log ?? false),
    rule.note ?? "",
  ]),
];

function wherefore(error: z.ZodError, what: string): string {
  const [issue] = error.issues;
  const at = issue?.path.join(".") ?? "";
  const unknown = issue?.code === "unrecognized_keys" ? issue.keys[0] : undefined;
  const place = [at, unknown].filter((part) => part !== undefined && part !== "").join(".");
  const why = unknown === undefined ? (issue?.message ?? "") : "is not known here";
  return `This ${what} can't be read: ${place === "" ? "" : `${place} `}${why}. Nothing was taken over.`;
}

function parsed(text: string): { readonly value: unknown } | null {
  try {
    return { value: JSON.parse(text) as unknown };
  } catch {
    return null;
  }
}

/** The lists for this device as we write them, the one that stands on it before the other; else all of them. */
function listsFor(device: Device, lists: readonly z.output<typeof listSchema>[]): readonly ReadList[] {
  const called = (which: "needed" | "standing") =>
    lists.filter(({ name }) => name.startsWith(`${listName(device, which)}, `));
  const [own] = [called("standing"), called("needed"), lists].filter((some) => some.length > 0);
  return (own ?? []).map(({ name, type, aces }) => ({
    name,
    family: FAMILIES[(type ?? "").replace(/^ietf-access-control-list:/, "") as keyof typeof FAMILIES] ?? null,
    entries: aces?.ace ?? [],
  }));
}

/** Whether a text is JSON and not a table. */
export const isRuleData = (text: string): boolean => /^\s*[{[]/.test(text.replace(/^\ufeff/, ""));

/**
 * Reads a list that stands on a device from JSON: access lists of RFC 8519, or our own rules with the words of
 * the table. A sentence where it is neither.
 */
export function readRuleData(index: PlanIndex, device: Device, text: string): RulesRead | string {
  const json = parsed(text.replace(/^\ufeff/, ""));
  if (json === null) return "This begins like JSON and is none: take the file again from where it came.";
  const { value } = json;
  if (typeof value === "object" && value !== null && "ietf-access-control-list:acls" in value) {
    const read = accessSchema.safeParse(value);
    if (!read.success) return wherefore(read.error, "access list");
    const lists = listsFor(device, read.data["ietf-access-control-list:acls"].acl);
    return lists.some(({ entries }) => entries.length > 0)
      ? rulesOfLists(index, device, lists)
      : "There is no entry in these access lists.";
  }
  return readPlain(index, device, value);
}

/** Rules in the words of the table: one list, or several of which one is this device's. */
function readPlain(index: PlanIndex, device: Device, value: unknown): RulesRead | string {
  const several = severalSchema.safeParse(value);
  if (several.success) {
    const own = several.data.lists.filter((list) => list.device === device.name);
    const list = own.find(({ list: which }) => which === "stands on it") ?? own[0];
    return list === undefined
      ? `None of these lists is one of ${device.name}.`
      : readRuleTable(index, asTable(list.rules));
  }
  const read = plainSchema.safeParse(Array.isArray(value) ? { rules: value } : value);
  return read.success
    ? readRuleTable(index, asTable(read.data.rules))
    : wherefore(read.error, "list of rules");
}

/** All rule lists as JSON, in the words of the table of rules. */
export function ruleListsText(index: PlanIndex): string {
  const [, ...rows] = ruleTable(index);
  const lists = [...grouped(rows, ([device = "", list = ""]) => `${device}\n${list}`).values()].map(
    (own) => ({
      device: own[0]?.[0],
      list: own[0]?.[1],
      rules: own.map(([, , , from, to, services, action, on, recorded, note]) => ({
        from,
        to,
        services,
        action,
        enabled: on === "yes",
        log: recorded === "yes",
        note,
      })),
    }),
  );
  return `${JSON.stringify({ lists }, null, 2)}\n`;
}
