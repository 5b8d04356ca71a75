// Measures a running server, a production build on a database of its own: how long another person waits while
// the largest body is taken in, and what "nothing new" costs on a site with a long history. Round trips on
// loopback, so an upper bound of the server's own time.
import { readFileSync } from "node:fs";
import { v7 } from "uuid";
import { encodePlan } from "../src/core/formats";
import { must } from "../src/core/kernel";
import { signedIn, startInstance, type Instance } from "../tests/e2e/instance";
import { generate, SIZES } from "./generate";

const PORT = 4188;
const ENTRIES = Number(process.argv[2] ?? 10_000);
const LARGEST = 64_000_000;

interface Asker {
  readonly address: string;
  readonly headers: Record<string, string>;
}

async function enter(instance: Instance): Promise<Asker> {
  const { address } = instance;
  const cookie = await signedIn(instance);
  return { address, headers: { origin: address, "content-type": "application/json", cookie } };
}

async function timed({ address, headers }: Asker, path: string): Promise<number> {
  const began = performance.now();
  const answer = await fetch(`${address}${path}`, { headers });
  await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
  return performance.now() - began;
}
const summary = (times: number[]): string => {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) =>
    (sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0).toFixed(1);
  return `median ${at(0.5)} ms, 95 % ${at(0.95)} ms, longest ${at(1)} ms of ${sorted.length}`;
};
async function make({ address, headers }: Asker, file: unknown): Promise<string> {
  const answer = await fetch(`${address}/api/sites`, {
    method: "POST",
    headers,
    body: typeof file === "string" ? file : JSON.stringify({ by: "file", id: v7(), batch: v7(), file }),
  });
  const said = (await answer.json()) as { id?: string; sentence?: string };
  return must(said.id, `a site: ${answer.status} ${said.sentence ?? ""}`);
}

/** Asks again and again while something large is under way. */
async function others(asker: Asker, title: string, work: () => Promise<unknown>): Promise<void> {
  let isOver = false;
  const began = performance.now();
  const under = work().finally(() => {
    isOver = true;
  });
  const times: number[] = [];
  do times.push(await timed(asker, "/api/sites"));
  while (!isOver);
  await under;
  console.info(
    `${title} (${((performance.now() - began) / 1000).toFixed(1)} ` +
      `s): another person's request takes ${summary(times)}`,
  );
}

async function neighbours(asker: Asker): Promise<void> {
  const plan = encodePlan(
    generate(
      must(
        SIZES.find((size) => size.name === "estate"),
        "the estate",
      ),
    ),
  );
  const body = JSON.stringify({ by: "file", id: v7(), batch: v7(), file: plan });
  await timed(asker, "/api/sites");
  let estate = "";
  await others(asker, `The estate's plan, ${(body.length / 1e6).toFixed(0)} MB, is taken in`, async () => {
    estate = await make(asker, body);
  });
  await others(asker, "It is opened", () => timed(asker, `/api/sites/${estate}/plan`));
  const zeros = `{"by":"file","id":"${v7()}","batch":"${v7()}","file":[${"0,".repeat(LARGEST / 2 - 200)}0]}`;
  await others(asker, `${(zeros.length / 1e6).toFixed(0)} MB that are no plan are refused`, async () =>
    (
      await fetch(`${asker.address}/api/sites`, { method: "POST", headers: asker.headers, body: zeros })
    ).arrayBuffer(),
  );
}

async function history(asker: Asker): Promise<void> {
  const file = JSON.parse(readFileSync("demo/fennel-street.json", "utf8")) as {
    hosts: Record<string, unknown>[];
  };
  const site = await make(asker, file);
  const host = must(file.hosts[0], "a host");
  let revision = 1;
  for (let notes = String(host.notes); revision <= ENTRIES;) {
    const after = { ...host, notes: `note ${revision}` };
    const batch = {
      id: v7(),
      planner: "bench",
      summary: "a note",
      args: null,
      changes: [{ kind: "host", id: host.id, before: { ...host, notes }, after }],
    };
    const answer = await fetch(`${asker.address}/api/sites/${site}/batches`, {
      method: "POST",
      headers: asker.headers,
      body: JSON.stringify({ revision, batch }),
    });
    const said = (await answer.json()) as { revision?: number; sentence?: string };
    revision = must(said.revision, `a revision: ${answer.status} ${said.sentence ?? ""}`);
    notes = after.notes;
  }
  const news: number[] = [];
  for (let i = 0; i < 200; i += 1)
    news.push(await timed(asker, `/api/sites/${site}/batches?after=${revision}`));
  const nothing: number[] = [];
  for (let i = 0; i < 200; i += 1) {
    const began = performance.now();
    await (await fetch(`${asker.address}/api/sites`)).arrayBuffer();
    nothing.push(performance.now() - began);
  }
  console.info(`A stranger turned away, which is the trip alone: ${summary(nothing)}`);
  console.info(`Nothing new, at ${revision} entries: ${summary(news)}`);
  const about: number[] = [];
  for (let i = 0; i < 50; i += 1)
    about.push(
      await timed(asker, `/api/sites/${site}/history?before=4000000000&about=${String(file.hosts[1]?.id)}`),
    );
  console.info(`The history of another device, at ${revision} entries: ${summary(about)}`);
}

async function main(): Promise<void> {
  const instance = await startInstance(PORT, true);
  try {
    const asker = await enter(instance);
    await neighbours(asker);
    await history(asker);
  } finally {
    await instance.stop();
  }
}
void main();
