// What stands in for the planned gear, on loopback: an authentication server that answers from the sites'
// registers and profiles, and the devices themselves, over RESTCONF. Their secrets are made anew at each start
// and kept beside the data, in files of this user's only.
import { randomBytes } from "node:crypto";
import { createSocket } from "node:dgram";
import { once } from "node:events";
import { rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { storesOn } from "../src/composition";
import { config } from "../src/config";
import { PlanIndex } from "../src/core/plan";
import { sendChange } from "../src/stand-in/change";
import { startDevices, type StoredPlan } from "../src/stand-in/devices/server";
import { startStandIn } from "../src/stand-in/server";

const [folder = ".", port = "1812", accountingPort = "1813", devicesFile = "stand-in-devices.json"] =
  process.argv.slice(2);
/** How often the sites are asked for what is new. */
const LOOK_EVERY_MS = 3000;
const word = (): string => randomBytes(24).toString("base64url");

/** The port, or any free one where another program has it. */
async function freePort(wanted: number): Promise<number> {
  const socket = createSocket("udp4");
  try {
    socket.bind(wanted, "127.0.0.1");
    await once(socket, "listening");
    return wanted;
  } catch {
    return 0;
  } finally {
    socket.close();
  }
}

const { plans } = storesOn(config().databaseUrl);
const words = { secret: word(), password: word() };

const known = new Map<string, StoredPlan>();
/** The plans that were read since somebody last asked which are others now. */
const changed = new Set<string>();

/** A site's plan as it is stored at this moment. */
async function planNow(id: string): Promise<StoredPlan | null> {
  const snapshot = await plans.snapshot(id);
  if (snapshot === null) return null;
  const before = known.get(id);
  if (before?.revision === snapshot.revision) return before;
  const now = { revision: snapshot.revision, index: PlanIndex.of(snapshot.plan) };
  known.set(id, now);
  if (before !== undefined) changed.add(id);
  return now;
}

/** Reads the sites that changed; answers those whose plan is another now. */
async function readChanged(): Promise<PlanIndex[]> {
  const sites = await plans.listSites(null);
  for (const id of [...known.keys()]) if (!sites.some((site) => site.id === id)) known.delete(id);
  for (const { id, revision } of sites) if (known.get(id)?.revision !== revision) await planNow(id);
  const others = [...changed].flatMap((id) => known.get(id)?.index ?? []);
  changed.clear();
  return others;
}

await readChanged();
const server = await startStandIn({
  port: await freePort(Number(port)),
  accountingPort: await freePort(Number(accountingPort)),
  words,
  plans: () => [...known.values()].map(({ index }) => index),
  say: (line) => process.stdout.write(`${new Date().toISOString()} ${line}\n`),
});
const file = join(folder, "sign-in-server.txt");
rmSync(file, { force: true });
writeFileSync(
  file,
  "An authentication server stands in on 127.0.0.1.\n" +
    `UDP port: ${server.port}, for accounting: ${server.accountingPort}\n` +
    `Made at this start; the next start makes others.\nshared secret: ${words.secret}\n` +
    `password of every account: ${words.password}\n`,
  { mode: 0o600 },
);
process.stdout.write(`listening on 127.0.0.1:${server.port} and ${server.accountingPort}\n`);

const password = word();
const devices = await startDevices({
  port: 0,
  password,
  plan: planNow,
});
rmSync(devicesFile, { force: true });
writeFileSync(devicesFile, JSON.stringify({ address: `http://127.0.0.1:${devices.port}`, password }), {
  mode: 0o600,
});
process.stdout.write(`devices answer on 127.0.0.1:${devices.port}\n`);

const stop = () => process.exit(0);
process.on("SIGTERM", stop);
process.on("SIGINT", stop);
process.on("SIGHUP", () => undefined);
for (;;) {
  await new Promise((done) => setTimeout(done, LOOK_EVERY_MS));
  try {
    for (const index of await readChanged())
      for (const { station, changed } of await server.sessions.follow(index, (to, code, attributes) =>
        sendChange({ ...to, secret: words.secret }, code, attributes),
      ))
        process.stdout.write(`${new Date().toISOString()} change for ${station}: ${changed}\n`);
  } catch (error) {
    // The database is just being started again: what was known is answered from until then.
    process.stdout.write(`${new Date().toISOString()} ${String(error)}\n`);
  }
}
