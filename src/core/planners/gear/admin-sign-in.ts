import type { Device, PlanEdits, PlanIndex } from "../../plan";
import type { EditContext, Refusal } from "../planner";
import { pieces } from "../rules/side-text";

type Admin = Device["adminSignIn"];

/** The ports that servers for administrators usually answer at: RFC 2865 and RFC 8907. */
const USUAL_PORT = { radius: 1812, tacacs: 49 } as const;

/** Where a device's servers for administrators are asked; null where it asks none. */
export const adminPort = ({ by, port }: Admin): number | null =>
  by === "local" ? null : (port ?? USUAL_PORT[by]);

/** Servers by their names, as they are typed. */
export const adminServersText = ({ plan }: PlanIndex, { servers }: Admin): string =>
  servers.map((id) => plan.host.get(id)?.name ?? "a removed device").join(", ");

function readServers(edits: PlanEdits, text: string): Pick<Admin, "servers"> | string {
  const servers: string[] = [];
  for (const piece of pieces(text)) {
    const host = edits.all("host").find(({ name }) => name.toLowerCase() === piece.toLowerCase());
    if (host === undefined)
      return `There is no device "${piece}" in the register; add the server there first, with its address.`;
    servers.push(host.id);
  }
  return servers.length > 4 ? "A device asks at most 4 servers." : { servers: [...new Set(servers)] };
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
  const read = field === "servers" ? readServers(edits, typed.trim()) : readPort(typed.trim());
  if (typeof read === "string") return read;
  edits.patch("device", id, { adminSignIn: { ...edits.need("device", id).adminSignIn, ...read } });
  return null;
}
