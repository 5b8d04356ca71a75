import { expect, test } from "@playwright/test";
import { readFileSync } from "node:fs";
import { setTimeout as wait } from "node:timers/promises";
import { signedIn, startInstance, type Instance } from "./instance";

// Real kills while people write: whatever the server has said yes to is there afterwards. KILL_CYCLES asks
// for more of them.

const CYCLES = Number(process.env.KILL_CYCLES ?? 6);
const PORT = 4194;
const WRITERS = 4;

let instance: Instance;
test.afterAll(async () => {
  await instance?.stop();
});

interface Site {
  readonly address: string;
  readonly cookie: string;
  readonly site: string;
  readonly hosts: readonly Record<string, unknown>[];
}
const newId = (() => {
  let n = 0;
  return () => `0190c0de-0000-7000-8000-${String((n += 1)).padStart(12, "0")}`;
})();
const asked = (address: string, cookie: string) => ({
  "content-type": "application/json",
  origin: address,
  cookie,
});

/** One writer: an edit after another on its own host, each sent until it is acknowledged, as a browser does. */
async function write(
  { address, cookie, site }: Site,
  host: Record<string, unknown>,
  until: () => boolean,
  acknowledged: string[],
): Promise<void> {
  let [notes, revision] = [host.notes, 1];
  for (let n = 1; !until(); n += 1) {
    const after = { ...host, notes: `${String(host.name)} ${n}` };
    const batch = {
      id: newId(),
      planner: "test",
      summary: after.notes,
      args: null,
      changes: [{ kind: "host", id: host.id, before: { ...host, notes }, after }],
    };
    for (;;) {
      const answer = await fetch(`${address}/api/sites/${site}/batches`, {
        method: "POST",
        headers: asked(address, cookie),
        body: JSON.stringify({ revision, batch }),
        signal: AbortSignal.timeout(20_000),
      })
        .then(async (came) => ({ status: came.status, text: await came.text() }))
        .catch(() => null);
      if (answer?.status === 200) {
        revision = (JSON.parse(answer.text) as { revision: number }).revision;
        break;
      }
      // Dead just now, or its database is: the same again. A clash can't be, each has a host of its own.
      if (answer !== null && ![500, 502, 503, 504, 507].includes(answer.status))
        throw new Error(`${answer.status} ${answer.text}`);
      if (until() && answer === null) return;
      await wait(50);
    }
    acknowledged.push(after.notes);
    notes = after.notes;
  }
}

/**
 * Killed, or dead already: a server that a dead database took with it is started again after a pause, and its
 * number is still the old one.
 */
function killed(pid: number): void {
  try {
    process.kill(pid, "SIGKILL");
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "ESRCH") throw error;
  }
}

/** The answer once there is one that is not about a server or a database being down. */
async function whenUp(ask: () => Promise<Response>): Promise<Response> {
  for (let tries = 0; tries < 900; tries += 1) {
    const answer = await ask().catch(() => null);
    if (answer?.ok === true) return answer;
    await wait(100);
  }
  throw new Error("Nothing was answered for 90 s after the last kill");
}

test(`${CYCLES} kills of database, server and both under way lose nothing that was acknowledged`, async () => {
  test.setTimeout(60_000 + CYCLES * 40_000);
  instance = await startInstance(PORT, true);
  const { address } = instance;
  const cookie = await signedIn(instance);
  const file = JSON.parse(readFileSync("demo/fennel-street.json", "utf8")) as {
    hosts: Record<string, unknown>[];
  };
  const made = await fetch(`${address}/api/sites`, {
    method: "POST",
    headers: asked(address, cookie),
    body: JSON.stringify({ by: "file", id: newId(), batch: newId(), file }),
  });
  const { id: site } = (await made.json()) as { id: string };
  let isOver = false;
  const acknowledged: string[][] = Array.from({ length: WRITERS }, () => []);
  const writers = acknowledged.map((list, i) =>
    write({ address, cookie, site, hosts: file.hosts }, file.hosts[i] ?? {}, () => isOver, list),
  );
  let slowest = 0;
  for (let cycle = 0; cycle < CYCLES; cycle += 1) {
    await wait(100 + ((cycle * 137) % 400));
    const { database, server } = instance.pids();
    const before = acknowledged.map((list) => list.length);
    const began = performance.now();
    if (cycle % 3 !== 1) killed(database);
    if (cycle % 3 !== 0) killed(server);
    for (let tries = 0; acknowledged.some((list, i) => list.length <= (before[i] ?? 0)); tries += 1) {
      if (tries > 900) throw new Error(`Nothing was acknowledged for 90 s after kill ${cycle + 1}`);
      await wait(100);
    }
    slowest = Math.max(slowest, performance.now() - began);
  }
  isOver = true;
  await Promise.all(writers);
  // What was on its way when the last kill came may have been acknowledged before it: the server is up when it
  // answers, not when somebody was answered.
  const answered = await whenUp(() => fetch(`${address}/api/sites/${site}/plan`, { headers: { cookie } }));
  const plan = (await answered.json()) as {
    revision: number;
    plan: { hosts: Record<string, unknown>[] };
  };
  const total = acknowledged.reduce((sum, list) => sum + list.length, 0);
  const lost = acknowledged.flatMap((list, i) =>
    plan.plan.hosts.find((host) => host.id === file.hosts[i]?.id)?.notes === list.at(-1) ? [] : [list.at(-1)],
  );
  const history: { summary: string }[] = [];
  for (let before = 4_000_000_000; ;) {
    const page = (await (
      await fetch(`${address}/api/sites/${site}/history?before=${before}`, { headers: { cookie } })
    ).json()) as { summary: string; revision: number }[];
    history.push(...page);
    before = page.at(-1)?.revision ?? 1;
    if (page.length === 0 || before <= 1) break;
  }
  const logged = new Set(history.map(({ summary }) => summary));
  lost.push(...acknowledged.flat().filter((notes) => !logged.has(notes)));
  console.info(
    `${CYCLES} kills: ${total} acknowledged, ${lost.length} lost, revision ${plan.revision}; ` +
      `at the latest ${Math.round(slowest)} ms after a kill everybody went on`,
  );
  expect([lost, plan.revision, history.length]).toEqual([[], total + 1, total + 1]);
});
