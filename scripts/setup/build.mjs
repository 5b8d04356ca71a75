// Builds the application when its sources are not the ones that were built last.
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join, sep } from "node:path";
import { lastLines, runProgram } from "./run-program.mjs";
import { Problem, stage } from "./stage.mjs";

const SOURCES = ["src", "package-lock.json", "next.config.ts", "postcss.config.mjs", "tsconfig.json"];

function* filesUnder(path) {
  const entries = readdirSync(path, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1));
  for (const entry of entries) {
    const inner = join(path, entry.name);
    if (entry.isDirectory()) yield* filesUnder(inner);
    else if (!/\.test\.tsx?$/.test(entry.name)) yield inner;
  }
}

function fingerprint(root) {
  const hash = createHash("sha256").update(process.version);
  for (const source of SOURCES) {
    const path = join(root, source);
    for (const file of source === "src" ? filesUnder(path) : [path])
      hash.update(file.slice(root.length)).update(readFileSync(file));
  }
  return hash.digest("hex");
}

/** The worker that keeps a site without a connection, with the names of all files that pages are made of. */
async function buildServiceWorker(root) {
  // Only now: before the packages are installed there is none.
  const { build } = await import("esbuild");
  const built = join(root, ".next", "static");
  const files = [...filesUnder(built)]
    .filter((file) => !file.endsWith(".map"))
    .map((file) => `/_next/static${file.slice(built.length).split(sep).map(encodeURIComponent).join("/")}`);
  mkdirSync(join(root, "public"), { recursive: true });
  await build({
    entryPoints: [join(root, "src", "service-worker", "worker.ts")],
    outfile: join(root, "public", "sw.js"),
    bundle: true,
    minify: true,
    format: "iife",
    define: {
      BUILT_FILES: JSON.stringify(files),
      BUILT_MARK: JSON.stringify(createHash("sha256").update(files.join("\n")).digest("hex").slice(0, 12)),
      "process.env.NODE_ENV": '"production"',
    },
    logLevel: "error",
  });
}

export async function ensureBuild(root) {
  const wanted = fingerprint(root);
  const stamp = join(root, ".next", "built-from");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === wanted) return;
  await stage("building the application", async () => {
    const { code, output } = await runProgram(
      process.execPath,
      ["node_modules/next/dist/bin/next", "build"],
      {
        cwd: root,
        env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", NODE_ENV: "production" },
      },
    );
    if (code !== 0) throw new Problem(`The build failed:\n${lastLines(output, 30)}`);
    await buildServiceWorker(root);
    writeFileSync(stamp, wanted);
  });
}
