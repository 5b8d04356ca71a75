import { NO_GUARDS, type PlanEdits, type Port, type Vid } from "../../plan";
import { nextFreeVid } from "../addressing/conventions";
import { paintPorts } from "./paint-ports";
import { patchGuards } from "./patch-guards";
import type { EditContext, IdSource, Refusal } from "../planner";

const NAMES = { parked: "Parked", wayBack: "Way back" } as const;

/**
 * The number of the domain's VLAN for a purpose other than a segment, made when there is none yet; null when
 * no number is free.
 */
function ensureVid(
  edits: PlanEdits,
  ids: IdSource,
  domain: string,
  purpose: "parked" | "wayBack",
): Vid | null {
  const known = edits
    .all("vlan")
    .filter((vlan) => vlan.domain === domain && vlan.purpose === purpose)
    .sort((a, b) => a.vid - b.vid)[0];
  if (known !== undefined) return known.vid;
  const vid = nextFreeVid(edits.plan, domain);
  if (vid !== null) edits.put("vlan", { id: ids(), domain, vid, name: NAMES[purpose], purpose });
  return vid;
}

/** Switches ports off and puts them in their domain's parked VLAN, which is made when there is none. */
export function parkInVlan({ edits, ids }: EditContext, ports: readonly string[]): Refusal {
  for (const id of ports) {
    const { domain } = edits.need("device", edits.need("port", id).device);
    paintPorts(edits, [id], {
      role: "park",
      vid: domain === null ? null : ensureVid(edits, ids, domain, "parked"),
    });
  }
  return null;
}

/** Makes ports rescue ports: access ports in their domain's way-back VLAN, with a note that says so. */
export function makeWayBack({ edits, ids }: EditContext, ports: readonly string[]): Refusal {
  for (const id of ports) {
    const { domain, name } = edits.need("device", edits.need("port", id).device);
    const vid = domain === null ? null : ensureVid(edits, ids, domain, "wayBack");
    if (vid === null) return `${name} has no VLAN to spare for a rescue port; free a number first.`;
    paintPorts(edits, [id], { role: "wayBack", vid });
    edits.patch("port", id, { note: edits.need("port", id).note || "Way back in, keep free" });
  }
  return null;
}

/** Gives ports to internet lines: each becomes the WAN side of one line, in no VLAN. */
export function makeWan(
  { edits, ids }: EditContext,
  ports: readonly string[],
  lines: readonly string[],
): Refusal {
  if (ports.length > lines.length)
    return (
      `${ports.length} ports and ` +
      `${["no line", "one line"][lines.length] ?? `${lines.length} lines`}: ` +
      "choose a line for each port; lines are added in the survey."
    );
  for (const [i, id] of ports.entries()) {
    const port = edits.need("port", id);
    const line = edits.get("line", lines[i] ?? "");
    if (line === undefined) return "Choose the internet line; lines are added in the survey.";
    if (edits.all("link").some((link) => link.a === id || link.b === id))
      return `Port ${port.label} has a cable to other gear; take it out first.`;
    const taken = edits.all("interface").find((leg) => leg.line === line.id);
    if (taken !== undefined && taken.device === port.device) edits.patch("interface", taken.id, { port: id });
    else if (taken !== undefined)
      return `${line.name} ends at ${edits.need("device", taken.device).name} already.`;
    else
      edits.put("interface", {
        id: ids(),
        device: port.device,
        port: id,
        segment: null,
        line: line.id,
        name: line.name,
        mac: null,
        addresses4: [],
        addresses6: [],
        relayTo: null,
        translates: "asUsual",
      });
    edits.patch("port", id, {
      enabled: true,
      pvid: null,
      untagged: [],
      tagged: [],
      admit: "all",
      guards: NO_GUARDS,
    });
  }
  return null;
}

export type GuardFlag =
  | "edge"
  | "bpduGuard"
  | "loopGuard"
  | "dhcpTrust"
  | "arpTrust"
  | "raTrust"
  | "sourceCheck"
  | "isolated"
  | "signIn"
  | "restrictedRole"
  | "trustsMarks";

/** Sets one guard of some ports. */
export function setGuard(
  { edits }: Pick<EditContext, "edits">,
  ports: readonly string[],
  guard: GuardFlag,
  on: boolean,
): void {
  for (const id of ports) patchGuards(edits, id, { [guard]: on });
}

/** The sign-in profile (IEEE 802.1X) of some ports; null for the only one there is. */
export function setProfile(
  { edits }: Pick<EditContext, "edits">,
  ports: readonly string[],
  profile: string | null,
): Refusal {
  if (profile !== null && edits.get("signIn", profile) === undefined)
    return "That sign-in profile is not in the plan any more; choose another.";
  for (const id of ports) patchGuards(edits, id, { profile });
  return null;
}

/** The most MAC addresses at once at some ports; empty for no limit. */
export function setMacLimit(
  { edits }: Pick<EditContext, "edits">,
  ports: readonly string[],
  typed: string,
): Refusal {
  const text = typed.trim();
  const limit = /^\d{1,4}$/.test(text) ? Number(text) : null;
  if (text !== "" && (limit === null || limit < 1 || limit > 4096))
    return `"${text}" is no limit; write 1 to 4096 addresses, or leave it empty for none.`;
  for (const id of ports) patchGuards(edits, id, { macLimit: limit });
  return null;
}

/** The most part of its speed, in percent, that flooded frames may fill at some ports; empty for no limit. */
export function setStormLimit(
  { edits }: Pick<EditContext, "edits">,
  ports: readonly string[],
  typed: string,
): Refusal {
  const text = typed.trim().replace(/\s*%$/, "");
  const percent = /^\d{1,3}$/.test(text) ? Number(text) : null;
  if (text !== "" && (percent === null || percent < 1 || percent > 100))
    return `"${typed.trim()}" is no limit; write 1 to 100 percent of the port's speed, or nothing for none.`;
  for (const id of ports) patchGuards(edits, id, { stormPercent: percent });
  return null;
}

export type PortField = "label" | "softwareName" | "speedMbps" | "poeMw";

/** A port's field as it can be typed in again. */
export const portFieldText = (port: Port, field: PortField): string => {
  if (field === "poeMw") {
    if (port.poeMw === 0) return "";
    return String(port.poeMw / 1000);
  }
  return String(port[field]);
};

/** Writes a text field of one port. */
export function editPort(
  { edits }: Pick<EditContext, "edits">,
  id: string,
  field: PortField,
  typed: string,
): Refusal {
  const text = typed.trim();
  const port = edits.need("port", id);
  switch (field) {
    case "label": {
      if (text === "" || text.length > 24) return "The number on the case has 1 to 24 characters.";
      const other = edits
        .all("port")
        .find((other) => other.device === port.device && other.id !== id && other.label === text);
      if (other !== undefined) return `Another port of this device has ${text} on the case; no two can.`;
      edits.patch("port", id, { label: text });
      return null;
    }
    case "softwareName":
      if (text.length > 40) return "A port's name in the software has at most 40 characters.";
      edits.patch("port", id, { softwareName: text });
      return null;
    case "speedMbps": {
      const speed = /^\d{1,7}$/.test(text) ? Number(text) : null;
      if (speed === null || speed > 1_000_000)
        return `"${text}" is no speed; write whole Mbit/s such as 1000 or 10000.`;
      edits.patch("port", id, { speedMbps: speed });
      return null;
    }
    case "poeMw": {
      const entered = /^\d{1,3}([.,]\d{1,3})?$/.test(text) ? Number(text.replace(",", ".")) : null;
      const watts = text === "" ? 0 : entered;
      if (watts === null || watts > 100)
        return (
          `"${text}" is no power; write watts such as 15.4 or ` +
          "30, or leave it empty for a port that gives none."
        );
      edits.patch("port", id, { poeMw: Math.round(watts * 1000) });
      return null;
    }
  }
}
