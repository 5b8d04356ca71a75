// Lets somebody in who has lost the password or the second factor: prints a one-time link that sets the
// password anew. Whoever can run this on the machine could read its database as well.
//   NAME       as it stands in the title block
//   --dir D    another data folder than .data/start
import { dirname, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { parseArgs } from "node:util";
import { urlOfRunning } from "./setup/database.mjs";
import { makeResetLink } from "./setup/entry-link.mjs";
import { ensurePackages } from "./setup/packages.mjs";
import { readRunning } from "./setup/running.mjs";
import { Problem, runOrExplain, say } from "./setup/stage.mjs";

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), "..");

async function letIn() {
  const { values, positionals } = parseArgs({
    options: { dir: { type: "string", default: ".data/start" } },
    allowPositionals: true,
  });
  const [name, ...more] = positionals;
  if (name === undefined || more.length > 0)
    throw new Problem('Write whom to let in, in quotes where the name has spaces: bin/let-in "Ruth Vale".');
  await ensurePackages(ROOT);
  const dir = resolve(ROOT, values.dir);
  const running = readRunning(dir);
  const url = process.env.DATABASE_URL ?? (await urlOfRunning(dir));
  if (running === null || url === null)
    throw new Problem(`Nothing that was started on ${dir} runs. Start it, then run this again.`);
  const link = await makeResetLink(url, running.address, name.normalize("NFC"));
  say(
    `\n${name} sets a new password by this link, once, within a day. ` +
      `A second factor is taken away then:\n\n    ${link}\n`,
  );
}

await runOrExplain(letIn);
