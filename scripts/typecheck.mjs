// Type checks every part under its own walls: the whole, the core without DOM and Node, the workers without
// DOM.
import { spawnSync } from "node:child_process";

const tsc = "node_modules/typescript-native/bin/tsc";
const parts = ["tsconfig.json", "src/core/tsconfig.json", "src/workers/tsconfig.json"];
spawnSync(process.execPath, ["node_modules/next/dist/bin/next", "typegen"], { stdio: "ignore" });
let failed = 0;
for (const part of parts) {
  const { status } = spawnSync(process.execPath, [tsc, "--noEmit", "-p", part], { stdio: "inherit" });
  if (status !== 0) failed += 1;
  console.log(`types ${part}: ${status === 0 ? "sound" : "broken"}`);
}
process.exit(failed === 0 ? 0 : 1);
