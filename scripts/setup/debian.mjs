// Installs Debian packages whose programs are missing, as root or through sudo, saying what it does.
import { existsSync } from "node:fs";
import { findProgram, lastLines, runProgram } from "./run-program.mjs";
import { Problem, say, stage } from "./stage.mjs";

export const DATABASE_PROGRAMS = {
  mariadbd: "mariadb-server-core",
  "mariadb-install-db": "mariadb-server-core",
  mariadb: "mariadb-client-core",
};
export const BROWSER_PROGRAMS = { chromium: "chromium" };
/** What judges the zone files that the tests export. */
export const ZONE_PROGRAMS = { "named-checkzone": "bind9-utils" };
/**
 * What judges the YANG data that the tests export: the validator, and the modules of RFC 8343 and RFC 8344,
 * which have no program.
 */
export const YANG_PROGRAMS = { yanglint: "libyang2-tools", "/usr/share/yuma/modules/ietf": "libyuma-base" };
/** What judges the capture files that the tests make. */
export const CAPTURE_PROGRAMS = { tshark: "tshark" };
/** A client of another make for the authentication server that stands in. */
export const SIGN_IN_PROGRAMS = { radclient: "freeradius-utils" };
/** Makes a certificate for a device that the tests read over TLS. */
export const CERTIFICATE_PROGRAMS = { openssl: "openssl" };
/** What turns a printed sheet into a picture. */
export const PAPER_PROGRAMS = { pdftoppm: "poppler-utils" };

/** How long another package installation is waited for. */
const LOCK_WAIT_S = 600;

/** Makes sure that every program, or every file where the name is a path, is there. */
export async function ensurePrograms(programs) {
  const isThere = (name) => (name.startsWith("/") ? existsSync(name) : findProgram(name) !== null);
  const missing = [
    ...new Set(
      Object.entries(programs)
        .filter(([name]) => !isThere(name))
        .map(([, debian]) => debian),
    ),
  ];
  if (missing.length === 0) return;
  const list = missing.join(" ");
  const byHand =
    `Install them yourself with\n    apt-get install ` +
    `--no-install-recommends ${list}\nand run this again.`;
  if (findProgram("apt-get") === null)
    throw new Problem(`These Debian packages are missing: ${list}. This machine has no apt-get. ${byHand}`);
  const root = process.getuid?.() === 0;
  if (!root && findProgram("sudo") === null)
    throw new Problem(
      `These Debian packages are missing: ${list}. Only root ` +
        `can install them, and there is no sudo here. ${byHand}`,
    );
  say(`  Debian packages missing: ${list}. Installing them ${root ? "as root" : "through sudo"}.`);
  const apt = async (...args) => {
    const [command, before] = root
      ? ["apt-get", []]
      : ["sudo", ["-n", "DEBIAN_FRONTEND=noninteractive", "apt-get"]];
    // Another installation may be under way (a fresh machine does its own first): it is waited for.
    return runProgram(command, [...before, "-o", `DPkg::Lock::Timeout=${LOCK_WAIT_S}`, ...args], {
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    });
  };
  await stage(`installing ${list}`, async () => {
    // A fresh machine may have no package lists yet, or stale ones: a failed update is told by the install
    // that follows.
    await apt("-qq", "update");
    const { code, output } = await apt("-y", "-qq", "install", "--no-install-recommends", ...missing);
    if (code !== 0) throw new Problem(`Installing ${list} failed:\n${lastLines(output)}\n${byHand}`);
  });
}
