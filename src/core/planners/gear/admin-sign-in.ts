import type { Device, PlanEdits } from "../../plan";
import type { EditContext, Refusal } from "../planner";
import { readServers } from "../ports/server-list";

type Admin = Device["adminSignIn"];

/** The ports that servers for administrators usually answer at: RFC 2865 and RFC 8907. */
const USUAL_PORT = { radius: 1812, tacacs: 49 } as const;

/** Where a device's servers for administrators are asked; null where it asks none. */
export const adminPort = ({ by, port }: Admin): number | null =>
  by === "local" ? null : (port ?? USUAL_PORT[by]);

/** As many servers as a device asks (`adminSignInSchema`). */
const MOST_SERVERS = 4;

function readAdminServers(edits: PlanEdits, text: string): Pick<Admin, "servers"> | string {
  const servers = readServers(edits, text);
  if (typeof servers === "string") return servers;
  return servers.length > MOST_SERVERS ? `A device asks at most ${MOST_SERVERS} servers.` : { servers };
}

function readPort(text: string): Pick<Admin, "port"> | string {
  if (text === "") return { port: null };
  const port = /^\d{1,5}$/.test(text) ? Number(text) : 0;
  return port < 1 || port > 65_535 ? `"${text}" is no port; write 1 to 65535, or leave it empty.` : { port };
}

/** Servers or port of the administrators' sign-in to a device, as typed. */
export function setAdminText(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  field: "servers" | "port",
  typed: string,
): Refusal {
  const read = field === "servers" ? readAdminServers(edits, typed.trim()) : readPort(typed.trim());
  if (typeof read === "string") return read;
  edits.patch("device", id, { adminSignIn: { ...edits.need("device", id).adminSignIn, ...read } });
  return null;
}
