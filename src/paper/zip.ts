import { zipSync } from "fflate";

/** Files as one ZIP (ISO/IEC 21320-1), each with the time at which they were made: an ISO 8601 instant. */
export const zipOf = (
  files: readonly (readonly [name: string, bytes: Uint8Array])[],
  made: string,
): Uint8Array =>
  zipSync(Object.fromEntries(files.map(([name, bytes]) => [name, bytes])), { mtime: new Date(made) });
