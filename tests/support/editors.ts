import { setTimeout as wait } from "node:timers/promises";
import { v7 } from "uuid";
import { decodeChanges, encodeBatch } from "@/core/formats";
import { must } from "@/core/kernel";
import { applyChanges, PlanEdits, type Change, type Plan } from "@/core/plan";

// People who edit one site at once over the network, as browsers do: each has the plan as it knows it, and
// puts its edit on top of what came between.

export interface Place {
  readonly address: string;
  readonly cookie: string;
  readonly site: string;
}
interface Logged {
  readonly id: string;
  readonly changes: unknown;
}

export const asked = ({ address, cookie }: Place) => ({
  "content-type": "application/json",
  origin: address,
  cookie,
});

const after = (plan: Plan, changes: readonly Change[]): Plan => {
  const applied = applyChanges(plan, changes);
  return must(applied.ok ? applied.value : null, "changes of the log apply");
};

/** What one edit does: a note of something that is chosen by chance. */
function edit(plan: Plan, words: string, chance: () => number): readonly Change[] {
  const edits = new PlanEdits(plan);
  const kind = chance() < 0.5 ? ("host" as const) : ("device" as const);
  const ids = [...plan[kind].keys()];
  const id = must(ids[Math.floor(chance() * ids.length)], `a ${kind}`);
  if (kind === "host") edits.patch("host", id, { notes: words });
  else edits.patch("device", id, { notes: words });
  return edits.changes();
}

/** Edits so often; answers the ids of what was acknowledged and how long each took, in milliseconds. */
export async function editor(
  place: Place,
  start: { readonly plan: Plan; readonly revision: number },
  { name, times, chance }: { readonly name: string; readonly times: number; readonly chance: () => number },
): Promise<{ readonly ids: readonly string[]; readonly took: readonly number[] }> {
  let { plan, revision } = start;
  const ids: string[] = [];
  const took: number[] = [];
  for (let n = 1; n <= times; n += 1) {
    const id = v7();
    const began = performance.now();
    for (;;) {
      const words = `${name}, ${n}`;
      const batch = encodeBatch({
        id,
        planner: "test",
        summary: words,
        args: null,
        changes: edit(plan, words, chance),
      });
      const answer = await fetch(`${place.address}/api/sites/${place.site}/batches`, {
        method: "POST",
        headers: asked(place),
        body: JSON.stringify({ revision, batch }),
      });
      // The database or this node is busy with others or away: the same again, as a browser does.
      if (answer.status === 503) {
        await answer.arrayBuffer();
        await wait(100);
        continue;
      }
      const said = (await answer.json()) as {
        revision: number;
        entries?: Logged[];
        between?: Logged[];
        code?: string;
      };
      const came = said.entries ?? said.between;
      if (came === undefined || (!answer.ok && said.code !== "stale-revision"))
        throw new Error(`${answer.status} ${JSON.stringify(said).slice(0, 300)}`);
      const isOwnAlone = answer.ok && came.length === 0;
      plan = isOwnAlone ? after(plan, decodeChanges((batch as Logged).changes)) : plan;
      for (const entry of came) plan = after(plan, decodeChanges(entry.changes));
      revision = said.revision;
      if (answer.ok) break;
    }
    took.push(performance.now() - began);
    ids.push(id);
  }
  return { ids, took };
}

/** Everything that was logged after a revision, in pages. */
export async function loggedAfter(place: Place, revision: number): Promise<Logged[]> {
  const answer = await fetch(`${place.address}/api/sites/${place.site}/batches?after=${revision}`, {
    headers: asked(place),
  });
  return ((await answer.json()) as { entries: Logged[] }).entries;
}

/** A plan with what was logged on top of it. */
export const replayed = (plan: Plan, log: readonly Logged[]): Plan =>
  log.reduce((state, { changes }) => after(state, decodeChanges(changes)), plan);
