import { spawn, type ChildProcess } from "node:child_process";
import { existsSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { resolve } from "node:path";
import { setTimeout as wait } from "node:timers/promises";

/**
 * An application of a test's own: its start command, server and database can be killed without harm to the
 * other tests.
 */
export interface Instance {
  readonly address: string;
  readonly link: string;
  readonly pids: () => { readonly database: number; readonly server: number };
  readonly kill: () => void;
  readonly stop: () => Promise<void>;
}

/** Every process that stems from one, itself included. */
function familyOf(pid: number): number[] {
  const parents = readdirSync("/proc")
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        const stat = readFileSync(`/proc/${name}/stat`, "utf8");
        return [{ pid: Number(name), parent: Number(stat.slice(stat.lastIndexOf(")") + 2).split(" ")[1]) }];
      } catch {
        return []; // gone between the listing and the reading
      }
    });
  const family = [pid];
  for (let i = 0; i < family.length; i += 1)
    family.push(...parents.filter((p) => p.parent === family[i]).map((p) => p.pid));
  return family;
}

const isGone = (child: ChildProcess) => child.exitCode !== null || child.signalCode !== null;

/** The folder that an instance on a port has. */
export const folderOf = (port: number): string => resolve(".data", `e2e-${port}`);

/**
 * Starts it on a durable database, as a user's start command would; `fresh` begins with an empty folder, `url`
 * names the database of another instance.
 */
export async function startInstance(
  port: number,
  fresh: boolean,
  url: string | null = null,
): Promise<Instance> {
  const profile = url === null ? "test" : "start";
  const dir = folderOf(port);
  const linkFile = resolve(dir, "link.txt");
  if (fresh) rmSync(dir, { recursive: true, force: true });
  rmSync(linkFile, { force: true });
  const child = spawn(
    process.execPath,
    [
      "scripts/start.mjs",
      "--profile",
      profile,
      "--port",
      String(port),
      "--dir",
      dir,
      "--link-file",
      linkFile,
    ],
    {
      stdio: ["ignore", "pipe", "pipe"],
      env: { ...process.env, TEST_DURABLE: "1", ...(url === null ? {} : { DATABASE_URL: url }) },
    },
  );
  let output = "";
  for (const stream of [child.stdout, child.stderr])
    stream.on("data", (data) => {
      output += data;
    });
  for (let tries = 0; !existsSync(linkFile); tries += 1) {
    if (isGone(child) || tries > 1800) throw new Error(`The instance did not start:\n${output}`);
    await wait(100);
  }
  return {
    address: `http://localhost:${port}`,
    link: readFileSync(linkFile, "utf8"),
    pids: () => ({
      database: Number(readFileSync(resolve(dir, "db.pid"), "utf8")),
      server: Number(
        (JSON.parse(readFileSync(resolve(dir, "running.json"), "utf8")) as { serverPid: number }).serverPid,
      ),
    }),
    kill: () => {
      for (const pid of familyOf(child.pid ?? -1)) process.kill(pid, "SIGKILL");
    },
    stop: async () => {
      child.kill("SIGTERM");
      for (let tries = 0; !isGone(child) && tries < 200; tries += 1) await wait(50);
    },
  };
}

/** Makes the owner's account by the link of the first start, and answers the session's cookie. */
export async function signedIn({ address, link }: Instance): Promise<string> {
  const answer = await fetch(`${address}/api/enter`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: address },
    body: JSON.stringify({
      key: link.trim().split("key=")[1],
      name: "Ruth",
      password: "several words do well",
    }),
  });
  const [cookie] = (answer.headers.get("set-cookie") ?? "").split(";");
  if (!answer.ok || cookie === undefined) throw new Error(`${answer.status} ${await answer.text()}`);
  return cookie;
}
