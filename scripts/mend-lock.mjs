// `npm ci` refuses a lock file that leaves out optional packages of other platforms, and `npm install` leaves
// them out when the registry doesn't offer them. This adds the missing entries; nothing is fetched for them.
import { readFileSync, writeFileSync } from "node:fs";

const LOCK = new URL("../package-lock.json", import.meta.url);
const lock = JSON.parse(readFileSync(LOCK, "utf8"));
const OSES = [
  "darwin",
  "linux",
  "win32",
  "freebsd",
  "openbsd",
  "netbsd",
  "android",
  "sunos",
  "aix",
  "openharmony",
];
const CPUS = ["x64", "arm64", "arm", "ia32", "ppc64", "s390x", "riscv64", "loong64", "mips64el", "wasm32"];

/** The platform that a package's name ends in, as npm's `os`, `cpu` and `libc` fields. */
function platformOf(name) {
  const words = name.split(/[/-]/);
  const os = OSES.filter((o) => words.includes(o) || (o === "win32" && words.includes("windows")));
  const cpu = CPUS.filter((c) => words.includes(c));
  const gnu = words.some((w) => w === "gnu" || w === "glibc") ? ["glibc"] : undefined;
  const libc = words.includes("musl") ? ["musl"] : gnu;
  return {
    os: os.length > 0 ? os : ["none"],
    cpu: cpu.length > 0 ? cpu : ["wasm32"],
    ...(libc ? { libc } : {}),
  };
}

let added = 0;
for (let again = true; again;) {
  again = false;
  for (const [path, entry] of Object.entries(lock.packages)) {
    for (const [name, version] of Object.entries(entry.optionalDependencies ?? {})) {
      const nested = `${path}/node_modules/${name}`.replace(/^\//, "");
      const shared = `node_modules/${name}`;
      if (lock.packages[nested] !== undefined || lock.packages[shared]?.version === version) continue;
      if (/[~^*x><]/.test(version)) {
        if (lock.packages[shared] !== undefined) continue;
      }
      const target = lock.packages[shared] === undefined ? shared : nested;
      lock.packages[target] = { version: version.replace(/^[~^]/, ""), optional: true, ...platformOf(name) };
      added += 1;
      again = true;
    }
  }
}
lock.packages = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : 1)));
writeFileSync(LOCK, JSON.stringify(lock, null, 2) + "\n");
console.log(`package-lock.json: ${added} missing optional entries added`);
