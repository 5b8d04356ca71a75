// The authentication server and the devices that stand in for the planned ones while the demo runs.
import { spawn } from "node:child_process";
import { closeSync, openSync } from "node:fs";
import { join } from "node:path";

/** Where its secret and its ports are written, for its user only. */
export const standInFile = (dir) => join(dir, "sign-in-server.txt");

/** Where the address and the password of the stand-in devices are written, for its user only. */
export const standInDevicesFile = (dir) => join(dir, "stand-in-devices.json");

/** Starts it; what it has to say is in a file. */
export function startStandIn(root, dir, url) {
  const log = openSync(join(dir, "sign-in-server.log"), "w", 0o600);
  const child = spawn(
    process.execPath,
    [
      "--conditions=react-server",
      "--import",
      "tsx",
      join(root, "scripts", "stand-in.mts"),
      dir,
      "1812",
      "1813",
      standInDevicesFile(dir),
    ],
    { cwd: root, detached: true, stdio: ["ignore", log, log], env: { ...process.env, DATABASE_URL: url } },
  );
  closeSync(log);
  return child;
}
