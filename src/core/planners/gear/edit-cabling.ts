import { byNaturalText } from "../../kernel";
import {
  BLANK_LINK,
  type Cable,
  type PlanEdits,
  type Lag,
  type Link,
  type Optic,
  type Port,
} from "../../plan";
import { cablesFor, opticsFor } from "../../cabling";
import { fillPattern } from "../name-pattern";
import type { EditContext, Refusal } from "../planner";

type Bound = Pick<EditContext, "edits">;

/** Sets what a cable is made of; a kind of cable that the medium can't be goes. */
export function setMedium({ edits }: Bound, id: string, medium: Link["medium"]): void {
  const { cable } = edits.need("link", id);
  edits.patch("link", id, { medium, cable: cablesFor(medium).includes(cable) ? cable : "unknown" });
}

export function setCable({ edits }: Bound, id: string, cable: Cable): Refusal {
  const link = edits.need("link", id);
  if (!cablesFor(link.medium).includes(cable))
    return `A ${link.medium} cable is not of that kind; change the medium first.`;
  edits.patch("link", id, { cable });
  return null;
}

/** What is plugged into a port that takes optics. */
export function setOptic({ edits }: Bound, port: string, optic: Optic): Refusal {
  const entity = edits.need("port", port);
  if (!opticsFor(entity).includes(optic))
    return `Port ${entity.label} runs at up to ${entity.speedMbps} Mbit/s and takes no ${optic}.`;
  edits.patch("port", port, { optic });
  return null;
}

/** The port of the patch panel, or the label of the socket. */
export function setPatch({ edits }: Bound, id: string, field: "panel" | "socket", typed: string): Refusal {
  const text = typed.trim();
  if (text.length > 120) return "At most 120 characters here.";
  edits.patch("link", id, { [field]: text });
  return null;
}

export const CABLE_WORDS_IN_BRACES = ["from", "fromPort", "to", "toPort", "place", "n"] as const;

/**
 * Writes the labels of cables by the site's pattern, in the order of their first ends; `only` limits it to
 * some. A label is not given twice.
 */
export function labelCables({ edits }: Bound, only: ReadonlySet<string> | null = null): Refusal {
  const pattern = edits.need("site", edits.plan.site.id).conventions.cablePattern;
  const ends = (link: Link) => {
    const [a, b] = [edits.need("port", link.a), edits.need("port", link.b)];
    return { a, b, from: edits.need("device", a.device), to: edits.need("device", b.device) };
  };
  const links = edits
    .all("link")
    .map((link) => ({ link, ...ends(link) }))
    .sort(
      (x, y) =>
        byNaturalText(x.from.name, y.from.name) ||
        x.a.position - y.a.position ||
        byNaturalText(x.link.id, y.link.id),
    );
  const taken = new Set(
    only === null
      ? []
      : links.filter(({ link }) => !only.has(link.id)).map(({ link }) => link.label.toLowerCase()),
  );
  for (const [i, { link, a, b, from, to }] of links.entries()) {
    if (only !== null && !only.has(link.id)) continue;
    const base = fillPattern(pattern, {
      from: from.name,
      fromPort: a.label,
      to: to.name,
      toPort: b.label,
      place: from.place,
      n: i + 1,
    }).slice(0, 116);
    let label = base;
    for (let n = 2; taken.has(label.toLowerCase()); n += 1) label = `${base}/${n}`;
    taken.add(label.toLowerCase());
    edits.patch("link", link.id, { label });
  }
  return null;
}

const usedBy = (edits: PlanEdits, port: string): boolean =>
  edits.all("host").some((host) => host.attachment.at === "port" && host.attachment.port === port) ||
  edits.all("interface").some((leg) => leg.port === port);

/** Makes one LAG of some ports of a device. What the first carries the others carry, too. */
export function makeLag({ edits, ids }: EditContext, ports: readonly string[], mode: Lag["mode"]): Refusal {
  const members = ports.map((id) => edits.need("port", id)).sort((a, b) => a.position - b.position);
  const [first] = members;
  if (first === undefined || members.length < 2)
    return "A LAG takes two ports or more; choose them together.";
  if (members.some((port) => port.device !== first.device)) return "The ports of a LAG are on one device.";
  const busy = members.find((port) => port.lag !== null || usedBy(edits, port.id));
  if (busy !== undefined)
    return (
      `Port ${busy.label} is ` +
      `${busy.lag === null ? "used by an end device or a line" : "in a LAG already"}; free it first.`
    );
  const slower = members.find((port) => port.speedMbps !== first.speedMbps);
  if (slower !== undefined)
    return (
      `Port ${first.label} runs at ${first.speedMbps} Mbit/s and port ` +
      `${slower.label} at ${slower.speedMbps}; the ports of a LAG run at one speed.`
    );
  const numbers = new Set(
    edits
      .all("lag")
      .filter((lag) => lag.device === first.device)
      .map((lag) => lag.name),
  );
  let n = 1;
  while (numbers.has(`LAG ${n}`)) n += 1;
  const lag = edits.put("lag", { id: ids(), device: first.device, name: `LAG ${n}`, mode });
  const { enabled, pvid, untagged, tagged, admit, ingressFilter, guards } = first;
  for (const port of members)
    edits.patch("port", port.id, {
      lag: lag.id,
      enabled,
      pvid,
      untagged,
      tagged,
      admit,
      ingressFilter,
      guards,
    });
  return null;
}

export function setLagMode({ edits }: Bound, id: string, mode: Lag["mode"]): void {
  edits.patch("lag", id, { mode });
}

/** Takes a LAG apart; its ports keep what they carry. */
export function dissolveLag({ edits }: Bound, id: string): void {
  for (const port of edits.all("port")) if (port.lag === id) edits.patch("port", port.id, { lag: null });
  edits.remove("lag", id);
}

/** Joins two LAGs port by port, in the printed order, where neither has a cable yet. */
export function cableLags({ edits, ids }: EditContext, a: string, b: string): Refusal {
  const used = new Set(edits.all("link").flatMap((link) => [link.a, link.b]));
  const free = (lag: string): Port[] =>
    edits
      .all("port")
      .filter((port) => port.lag === lag && !used.has(port.id))
      .sort((x, y) => x.position - y.position);
  const [near, far] = [free(a), free(b)];
  if (near.length === 0 || near.length !== far.length)
    return (
      `The two LAGs have ${near.length} and ${far.length} ` +
      "ports without a cable; both need the same number."
    );
  for (const [i, port] of near.entries()) {
    const other = far[i];
    if (other !== undefined)
      edits.put("link", {
        ...BLANK_LINK,
        id: ids(),
        a: port.id,
        b: other.id,
        medium: port.medium === "copper" || other.medium === "copper" ? "copper" : "fibre",
      });
  }
  return null;
}
