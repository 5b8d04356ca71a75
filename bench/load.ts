// Many people at work at once: 50 on the office, 5 on the campus, each with the stream of what happens open and
// an edit of their own every few seconds; what the stream can't tell is asked for, as browsers do. A production
// build on a durable database, asked from the same machine: an upper bound of the server's own time.
//   npm run load -- [minutes] [seconds between two edits of one person]
import { readFileSync } from "node:fs";
import { setTimeout as wait } from "node:timers/promises";
import { v7 } from "uuid";
import { encodePlan } from "../src/core/formats";
import { must } from "../src/core/kernel";
import { signedIn, startInstance, type Instance } from "../tests/e2e/instance";
import { generate, SIZES } from "./generate";

const PORT = 4188;
const MINUTES = Number(process.argv[2] ?? 10);
const PAUSE_S = Number(process.argv[3] ?? 5);
const [OFFICE, CAMPUS] = [50, 5];
const MINUTE_MS = 60_000;
const LOOK_MS = 5_000;

type Fields = Record<string, unknown>;
interface PlanFile {
  readonly hosts: readonly Fields[];
}
interface Person {
  readonly address: string;
  readonly cookie: string;
}
/** What was measured: when it began, in milliseconds since the start, and how long it took. */
interface Measured {
  readonly at: number;
  readonly took: number;
}
const edits: Measured[] = [];
/** From the answer to somebody's edit to the moment at which another person has it. */
const seen: Measured[] = [];
const asked: Measured[] = [];
/** When each revision of a site was acknowledged. */
const saved = new Map<string, number>();
const memory: { readonly at: number; readonly mb: number }[] = [];
const failed = new Map<string, number>();
let began = 0;
let isOver = false;

const headers = ({ address, cookie }: Person) => ({
  "content-type": "application/json",
  origin: address,
  cookie,
});
async function post(person: Person, path: string, body: unknown): Promise<{ status: number; said: Fields }> {
  const answer = await fetch(`${person.address}${path}`, {
    method: "POST",
    headers: headers(person),
    body: JSON.stringify(body),
  });
  return { status: answer.status, said: (await answer.json()) as Fields };
}
async function timed<T>(into: Measured[], work: () => Promise<T>): Promise<T> {
  const at = performance.now();
  const value = await work();
  into.push({ at: at - began, took: performance.now() - at });
  return value;
}
const count = (what: string): void => void failed.set(what, (failed.get(what) ?? 0) + 1);

async function newPerson(owner: Person, name: string): Promise<Person> {
  const { said } = await post(owner, "/api/people", {
    ...{ do: "invite", person: null, on: { kind: "all" }, role: "editor" },
  });
  const answer = await fetch(`${owner.address}/api/enter`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: owner.address },
    body: JSON.stringify({ key: said.key, name, password: "several words do well" }),
  });
  const cookie = must(answer.headers.get("set-cookie"), `${name}'s session`).split(";")[0] ?? "";
  return { address: owner.address, cookie };
}

interface Told {
  readonly revision: number;
  readonly news: { readonly after: number } | null;
}
/** Hears of new revisions until it is over. */
async function listen(person: Person, site: string, hear: (told: Told) => void): Promise<void> {
  while (!isOver) {
    const answer = await fetch(`${person.address}/api/sites/${site}/events`, { headers: headers(person) });
    const reader = must(answer.body, "a stream").getReader();
    for (let text = ""; !isOver;) {
      const { done, value } = await reader.read();
      if (done) break;
      const events = (text + new TextDecoder().decode(value)).split("\n\n");
      text = events.pop() ?? "";
      for (const event of events) if (event.startsWith("data: ")) hear(JSON.parse(event.slice(6)) as Told);
    }
    await reader.cancel().catch(() => null);
  }
}

/** One person at work on a host of their own. */
async function work(person: Person, site: string, host: Fields, name: string): Promise<void> {
  let [revision, notes, isFetching] = [1, host.notes, false];
  const path = `/api/sites/${site}`;
  const reached = (now: number) => {
    const told = performance.now();
    for (let each = revision + 1; each <= now; each += 1) {
      const at = saved.get(`${site} ${each}`);
      if (at !== undefined) seen.push({ at: told - began, took: Math.max(0, told - at) });
    }
    revision = Math.max(revision, now);
  };
  const catchUp = async (told: Told) => {
    if (told.revision <= revision || isFetching) return;
    if (told.news !== null && told.news.after <= revision) return reached(told.revision);
    isFetching = true;
    const answer = await timed(asked, async () => {
      const came = await fetch(`${person.address}${path}/batches?after=${revision}`, {
        headers: headers(person),
      });
      return { isOk: came.ok, said: (await came.json()) as { revision: number } };
    });
    if (answer.isOk) reached(answer.said.revision);
    else count("news refused");
    isFetching = false;
  };
  const stream = listen(person, site, (told) => void catchUp(told)).catch(() => count("stream ended"));
  for (let n = 1; !isOver; n += 1) {
    await wait(PAUSE_S * 500 + Math.random() * PAUSE_S * 1000);
    const after = { ...host, notes: `${name}, ${n}` };
    const change = { kind: "host", id: host.id, before: { ...host, notes }, after };
    const batch = { id: v7(), planner: "load", summary: after.notes, args: null, changes: [change] };
    const { status, said } = await timed(edits, () => post(person, `${path}/batches`, { revision, batch }));
    if (status !== 200) {
      count(`edit ${status}`);
      continue;
    }
    saved.set(`${site} ${Number(said.revision)}`, performance.now());
    revision = Math.max(revision, Number(said.revision));
    notes = after.notes;
    if (n % 5 === 0)
      await post(person, `${path}/presence`, { is: "here", tab: v7(), sheet: "addresses", things: [] });
  }
  await stream;
}

function residentMb(pid: number): number {
  const kb = /^VmRSS:\s+(\d+) kB/m.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1];
  return Number(kb ?? 0) / 1024;
}
async function watch(instance: Instance): Promise<void> {
  while (!isOver) {
    memory.push({ at: performance.now() - began, mb: residentMb(instance.pids().server) });
    await wait(LOOK_MS);
  }
}

const shares = (list: readonly Measured[]): string => {
  const sorted = list.map(({ took }) => took).sort((a, b) => a - b);
  const at = (share: number) =>
    (sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0).toFixed(0);
  return `p50 ${at(0.5)} ms, p95 ${at(0.95)} ms, p99 ${at(0.99)} ms, longest ${at(1)} ms`;
};
const within = <T extends { readonly at: number }>(list: readonly T[], from: number, to: number): T[] =>
  list.filter(({ at }) => at >= from && at < to);

function tell(): void {
  for (let minute = 0; minute < MINUTES; minute += 1) {
    const [from, to] = [minute * MINUTE_MS, (minute + 1) * MINUTE_MS];
    const [own, theirs, looked] = [within(edits, from, to), within(seen, from, to), within(memory, from, to)];
    const mb = looked.reduce((sum, look) => sum + look.mb, 0) / Math.max(1, looked.length);
    console.info(
      `minute ${minute + 1}: ${own.length} edits, ${shares(own)}; seen by ${theirs.length}, ` +
        `${shares(theirs)}; memory ${mb.toFixed(0)} MB`,
    );
  }
  const total = edits.length;
  console.info(`all: ${(total / MINUTES / 60).toFixed(1)} edits a second, ${shares(edits)}`);
  console.info(`seen by somebody else: ${(seen.length / MINUTES / 60).toFixed(1)} a second, ${shares(seen)}`);
  console.info(`asked for: ${asked.length} times, ${shares(asked)}`);
  console.info(
    failed.size === 0 ? "nothing failed" : [...failed].map(([what, n]) => `${what}: ${n}`).join(", "),
  );
}

async function main(): Promise<void> {
  const instance = await startInstance(PORT, true);
  try {
    const owner = { address: instance.address, cookie: await signedIn(instance) };
    const office = JSON.parse(readFileSync("demo/fennel-street.json", "utf8")) as PlanFile;
    const size = must(
      SIZES.find(({ name }) => name === "campus"),
      "the campus",
    );
    const campus = encodePlan(generate(size)) as PlanFile;
    const siteOf = async (file: PlanFile) => {
      const made = await post(owner, "/api/sites", { by: "file", id: v7(), batch: v7(), file });
      return String(made.said.id);
    };
    const crews = [
      { site: await siteOf(office), file: office, people: OFFICE },
      { site: await siteOf(campus), file: campus, people: CAMPUS },
    ];
    const all: (() => Promise<void>)[] = [];
    for (const { site, file, people } of crews)
      for (let n = 0; n < people; n += 1) {
        const name = `Person ${all.length + 1}`;
        const person = await newPerson(owner, name);
        const host = must(file.hosts[n], "a host for everybody");
        all.push(() => work(person, site, host, name));
      }
    began = performance.now();
    const running = [...all.map((job) => job()), watch(instance)];
    await wait(MINUTES * MINUTE_MS);
    isOver = true;
    await Promise.race([Promise.all(running), wait(20_000)]);
    tell();
  } finally {
    await instance.stop();
  }
  process.exit(0);
}

void main();
