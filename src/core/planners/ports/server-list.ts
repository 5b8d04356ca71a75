import type { Host, PlanEdits, PlanIndex } from "../../plan";
import { pieces } from "../rules/side-text";

/** Servers by their names, as they are typed. */
export const serversText = ({ plan }: PlanIndex, servers: readonly string[]): string =>
  servers.map((id) => plan.host.get(id)?.name ?? "a removed device").join(", ");

/** Servers named with commas between, the first asked first; a sentence where one is not in the register. */
export function readServers(edits: PlanEdits, text: string): string[] | string {
  const hosts = edits.all("host");
  const servers: string[] = [];
  for (const piece of pieces(text)) {
    const host: Host | undefined = hosts.find(({ name }) => name.toLowerCase() === piece.toLowerCase());
    if (host === undefined)
      return `There is no device "${piece}" in the register; add the server there first, with its address.`;
    servers.push(host.id);
  }
  return [...new Set(servers)];
}
