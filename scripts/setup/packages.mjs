// Installs the packages of the lock file when they are not the ones that lie here.
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { lastLines, runProgram } from "./run-program.mjs";
import { Problem, stage } from "./stage.mjs";

export async function ensurePackages(root) {
  const wanted = createHash("sha256")
    .update(readFileSync(join(root, "package-lock.json")))
    .update(process.version)
    .digest("hex");
  const stamp = join(root, "node_modules", ".installed-lock");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return;
  await stage("installing packages (npm ci)", async () => {
    const { code, output } = await runProgram("npm", ["ci", "--no-audit", "--no-fund"], { cwd: root });
    if (code !== 0)
      throw new Problem(
        `npm ci failed:\n${lastLines(output)}\nCheck the connection to ` +
          "the npm registry and the free disk space, then run this again.",
      );
    writeFileSync(stamp, wanted);
  });
}
