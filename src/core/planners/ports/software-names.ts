import type { PlanEdits, Port } from "../../plan";
import type { EditContext, Refusal } from "../planner";

/**
 * What was seen on site: which name of the software lit up when the cable went into the port with this number
 * on the case.
 */
export interface Lit {
  readonly port: string;
  readonly softwareName: string;
}

const COUNTING = /^(.*?)(\d+)$/;

/**
 * What two sightings say about a whole run: from `a` to `b` on the case the software counts up (or down) by
 * one a port, under the same word. Null when it doesn't.
 */
function runBetween(ports: readonly Port[], a: Lit, b: Lit): Map<string, string> | null {
  const [from, to] = [
    ports.findIndex((port) => port.id === a.port),
    ports.findIndex((port) => port.id === b.port),
  ];
  const [first, last] = [COUNTING.exec(a.softwareName), COUNTING.exec(b.softwareName)];
  if (from < 0 || to <= from || first === null || last === null || first[1] !== last[1]) return null;
  const [low, high] = [Number(first[2]), Number(last[2])];
  const step = (high - low) / (to - from);
  if (step !== 1 && step !== -1) return null;
  const width =
    (first[2] ?? "").startsWith("0") || (last[2] ?? "").startsWith("0") ? (first[2] ?? "").length : 0;
  return new Map(
    ports
      .slice(from, to + 1)
      .map((port, i) => [port.id, `${first[1] ?? ""}${String(low + i * step).padStart(width, "0")}`]),
  );
}

/**
 * The names that follow from what was seen: those seen, and those of the ports between two sightings that
 * count on evenly.
 */
export function namesFromSightings(
  ports: readonly Port[],
  seen: readonly Lit[],
): ReadonlyMap<string, string> {
  const ordered = [...seen].sort(
    (a, b) => ports.findIndex((p) => p.id === a.port) - ports.findIndex((p) => p.id === b.port),
  );
  const names = new Map<string, string>();
  for (const [i, lit] of ordered.entries()) {
    const next = ordered[i + 1];
    for (const [port, name] of (next === undefined ? null : runBetween(ports, lit, next)) ?? [])
      names.set(port, name);
    names.set(lit.port, lit.softwareName);
  }
  return names;
}

/**
 * Writes names of the software onto ports. A name that another port of the device would have too is refused.
 */
export function setSoftwareNames(
  { edits }: Pick<EditContext, "edits">,
  device: string,
  names: ReadonlyMap<string, string>,
): Refusal {
  const ports = edits.all("port").filter((port) => port.device === device);
  const after = new Map<string, string>();
  for (const port of ports) {
    const name = (names.get(port.id) ?? port.softwareName).trim();
    if (name.length > 40) return "A port's name in the software has at most 40 characters.";
    const other = name === "" ? undefined : after.get(name);
    if (other !== undefined && (names.has(port.id) || names.has(other))) {
      const labels = [other, port.id].map((id) => edits.need("port", id).label);
      return `${name} would stand for ports ${labels.join(" and ")}; the software gives each port one name.`;
    }
    if (name !== "") after.set(name, port.id);
  }
  for (const port of ports) {
    const name = names.get(port.id);
    if (name !== undefined) edits.patch("port", port.id, { softwareName: name.trim() });
  }
  return null;
}

/** Every port of a device that has the software's name of another, with it. */
export const sharedNames = (edits: Pick<PlanEdits, "all">, device: string): Port[] => {
  const ports = edits.all("port").filter((port) => port.device === device && port.softwareName !== "");
  return ports.filter((port) =>
    ports.some((other) => other !== port && other.softwareName === port.softwareName),
  );
};
