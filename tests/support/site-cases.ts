import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { readPlanFile } from "@/core/formats";
import { must } from "@/core/kernel";
import { PlanIndex, type Plan, type ProbeQuestion, type Service } from "@/core/plan";
import { probe, type Outcome } from "@/core/probe";

// Whole sites that were built of real software and asked: what came of each question, beside what the probe
// says.

export interface Row {
  readonly from: string;
  readonly to: string;
  readonly proto: "icmp" | "tcp" | "udp";
  readonly port: number | null;
  readonly delivered: boolean;
  readonly answered: boolean;
  readonly ambiguous?: string;
}
export interface Leased {
  readonly segment: string | null;
  readonly address: string;
  readonly reserved: boolean;
  readonly gateway: string | null;
}
type Edit = {
  readonly list: string;
  readonly id?: string;
  readonly set?: object;
  readonly add?: object;
  readonly remove?: boolean;
};
export interface SiteCase {
  readonly name: string;
  readonly group: string;
  readonly base: string;
  readonly edit: readonly Edit[];
  readonly notBuilt: readonly string[];
  readonly enforce?: readonly string[];
  readonly leases: Readonly<Record<string, Leased | null>>;
  readonly ambiguousLeases: readonly string[];
  readonly expect: readonly Row[];
}

const FOLDER = join(__dirname, "..", "oracle", "site");
const unzipped = (file: string): unknown =>
  JSON.parse(gunzipSync(readFileSync(join(FOLDER, file))).toString("utf8"));

export const siteCases = (): readonly SiteCase[] => unzipped("cases.json.gz") as SiteCase[];

/** The plan of a case: its base, read as the older form that it is, with the edits of the case. */
export function planOf({ base, edit, enforce }: SiteCase): Plan {
  const file = unzipped(`bases/${base.replace(/^bases\//, "")}.gz`) as Record<string, { id: string }[]>;
  for (const { list, id, set, add, remove } of edit) {
    const rows = must(file[list], list);
    const at = rows.findIndex((row) => row.id === id);
    if (add !== undefined) rows.push(add as { id: string });
    else if (remove === true) rows.splice(at, 1);
    else rows[at] = { ...must(rows[at], `${list} ${id}`), ...set };
  }
  // Limits on MAC addresses were built in the one case that names them.
  if (enforce?.includes("macLimit") !== true)
    for (const port of file.ports as unknown as { guards: { macLimit: number | null } }[])
      port.guards.macLimit = null;
  const read = readPlanFile(JSON.stringify(file));
  return must(read.ok ? read.value : null, read.ok ? "" : (read.error[0]?.sentence ?? ""));
}

function serviceOf({ proto, port }: Row): Service {
  return {
    name: proto === "icmp" ? "echo" : `${proto} ${port}`,
    protocol: proto,
    ports: port === null ? [] : [[port, port]],
  };
}

/** The row as a question to the probe. */
export function questionOf(plan: Plan, row: Row): ProbeQuestion {
  const service = serviceOf(row);
  const named = <T extends { readonly name: string; readonly id: string }>(
    all: ReadonlyMap<string, T>,
    name: string,
  ): T =>
    must(
      [...all.values()].find((named) => named.name === name),
      name,
    );
  const [kind, name = ""] = row.to.includes(":")
    ? [row.to.slice(0, row.to.indexOf(":")), row.to.slice(row.to.indexOf(":") + 1)]
    : [row.to];
  const forwarded = () => plan.line.get(named(plan.forward, name).line);
  const outer = kind === "forward" ? forwarded() : undefined;
  const line = kind === "line" ? named(plan.line, name) : outer;
  const from: ProbeQuestion["from"] =
    row.from === "internet"
      ? { at: "internet", line: must(line, "a line").id }
      : { at: "host", host: named(plan.host, row.from).id };
  const goal = (): ProbeQuestion["goal"] => {
    switch (kind) {
      case "internet":
        return { to: "internet", service };
      case "gateway":
      case "line":
        return { to: "gateway", service };
      case "device":
        return { to: "device", device: named(plan.device, name).id, service };
      case "forward":
        return { to: "forward", forward: named(plan.forward, name).id };
      default:
        return { to: "host", host: named(plan.host, row.to).id, service };
    }
  };
  return { from, as: { as: "client" }, mac: null, family: 4, goal: goal() };
}

let made = 0;
const ids = () => `00000000-0000-7000-8000-${String((made += 1)).padStart(12, "0")}`;

export interface Difference {
  readonly row: Row;
  readonly outcome: Outcome;
  readonly delivered: boolean;
  readonly answered: boolean;
}

/** Every row of a case that is to be judged and on which the probe says otherwise. */
export function differencesOf(siteCase: SiteCase): {
  readonly judged: number;
  readonly rows: Difference[];
  readonly leases: string[];
} {
  const plan = planOf(siteCase);
  const index = PlanIndex.of(plan, "2026-11-27");
  const rows: Difference[] = [];
  let judged = 0;
  for (const row of siteCase.expect) {
    if (row.ambiguous !== undefined) continue;
    judged += 1;
    const outcome = probe(index, questionOf(plan, row), ids);
    const answered = outcome.cause === null;
    if (answered !== row.answered || outcome.delivered !== row.delivered)
      rows.push({ row, outcome, delivered: outcome.delivered, answered });
  }
  const leases = Object.entries(siteCase.leases).flatMap(([name, leased]): string[] => {
    if (siteCase.ambiguousLeases.includes(name)) return [];
    const host = [...plan.host.values()].find((h) => h.name === name);
    const { lease } = probe(
      index,
      {
        from: { at: "host", host: must(host, name).id },
        as: { as: "client" },
        mac: null,
        family: 4,
        goal: { to: "address" },
      },
      ids,
    );
    const got = lease === null ? null : (plan.segment.get(lease.segment ?? "")?.name ?? "?");
    return got === (leased?.segment ?? null)
      ? []
      : [`${name}: ${got ?? "none"}, really ${leased?.segment ?? "none"}`];
  });
  return { judged, rows, leases };
}
