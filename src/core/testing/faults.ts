import { must } from "../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Plan, type ProbeQuestion } from "../plan";
import { asClient, probe } from "../probe";
import { SERVICES } from "../policy";
import { type Dice, type Fault, PLANTS } from "./plants";

/** Plants a random fault; null when this one had nothing to grip. */
export function plant(plan: Plan, roll: Dice): Fault | null {
  const index = PlanIndex.of(plan);
  const kind = must(Object.keys(PLANTS)[roll(Object.keys(PLANTS).length)], "a kind");
  const edits = new PlanEdits(plan);
  const planted = PLANTS[kind]?.(edits, index, roll) ?? null;
  const applied = planted === null ? null : applyChanges(plan, edits.changes());
  return planted === null || applied?.ok !== true || edits.changes().length === 0
    ? null
    : { kind, plan: applied.value, ...planted };
}

/**
 * Questions that pass on a plan: addresses, gateway and internet for every host, and every door between two
 * hosts.
 */
function passing(plan: Plan): ProbeQuestion[] {
  const index = PlanIndex.of(plan);
  const hosts = [...plan.host.values()];
  const asked = hosts.flatMap((host): ProbeQuestion[] => {
    const from = { at: "host" as const, host: host.id };
    const web = SERVICES.find((service) => service.name === "https") ?? null;
    const inside = plan.segment.get(host.segment ?? "");
    const doors = [...plan.wall.values()].filter(
      (wall) => wall.from.at === "zone" && wall.from.zone === inside?.zone,
    );
    const far = doors.flatMap((wall) => {
      const { to } = wall;
      return to.at !== "zone"
        ? []
        : hosts
            .filter((other) => plan.segment.get(other.segment ?? "")?.zone === to.zone)
            .slice(0, 1)
            .map((other) => asClient(from, { to: "host", host: other.id, service: wall.services[0] ?? web }));
    });
    const near = hosts
      .filter((other) => other.segment === host.segment && other.id !== host.id)
      .slice(0, 1)
      .map((other) => asClient(from, { to: "host", host: other.id, service: null }));
    return [
      asClient(from, { to: "address" }),
      asClient(from, { to: "gateway", service: null }),
      asClient(from, { to: "internet", service: null }),
      ...far,
      ...near,
    ];
  });
  return asked.filter((question) => probe(index, question, () => "").cause === null);
}

const TRIES = 60;

/**
 * How a number of planted faults came out: mended when a repair on offer makes the failing question pass,
 * blamed when the first cause names the faulty thing.
 */
export interface Verdict {
  readonly planted: number;
  readonly mended: number;
  readonly blamed: number;
  readonly kinds: ReadonlySet<string>;
  readonly missed: readonly string[];
}

function isMended(plan: Plan, question: ProbeQuestion, ids: () => string): boolean {
  const { cause } = probe(PlanIndex.of(plan), question, ids);
  return (cause?.repairs ?? []).some((repair) => {
    const edits = new PlanEdits(plan);
    if (typeof repair.edit(edits, ids) === "string") return false;
    const applied = applyChanges(plan, edits.changes());
    return applied.ok && probe(PlanIndex.of(applied.value), question, ids).cause === null;
  });
}

/**
 * Plants faults one at a time in plans that are sound, until `count` of them have made a question fail that
 * passed before.
 */
export function judgeFaults(plans: readonly Plan[], count: number, roll: Dice, ids: () => string): Verdict {
  const sites = plans.map((plan) => ({ plan, questions: passing(plan) }));
  const kinds = new Set<string>();
  const missed: string[] = [];
  let [planted, mended, blamed] = [0, 0, 0];
  for (let rolls = 0; planted < count && rolls < count * 20; rolls += 1) {
    const { plan, questions } = must(sites[roll(sites.length)], "a site");
    const fault = plant(plan, roll);
    if (fault === null) continue;
    const index = PlanIndex.of(fault.plan);
    const likely = questions.filter(({ from }) => from.at === "host" && fault.notice.includes(from.host));
    let failing: ProbeQuestion | undefined;
    for (let i = 0; i < Math.min(TRIES, likely.length) && failing === undefined; i += 1) {
      const question = must(likely[roll(likely.length)], "a question");
      if (probe(index, question, ids).cause !== null) failing = question;
    }
    // A fault that none of these questions notices is no failure of theirs: a spare way, a VLAN nobody uses
    // there.
    if (failing === undefined) continue;
    planted += 1;
    kinds.add(fault.kind);
    const { cause } = probe(index, failing, ids);
    const [names, mends] = [
      cause?.subjects.some((subject) => fault.blame.includes(subject.id)) ?? false,
      isMended(fault.plan, failing, ids),
    ];
    mended += Number(mends);
    blamed += Number(names);
    if (!mends || !names) missed.push(`${fault.kind}: ${cause?.sentence ?? ""}`);
  }
  return { planted, mended, blamed, kinds, missed };
}
