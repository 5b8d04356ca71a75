import type { EditContext, Refusal } from "../planner";

/**
 * Takes the cable or the end device out of one port and puts it into another, with what the first carried;
 * the first is free then.
 */
export function movePlug({ edits }: Pick<EditContext, "edits">, from: string, to: string): Refusal {
  const [source, target] = [edits.need("port", from), edits.need("port", to)];
  if (
    edits.all("link").some((link) => link.a === to || link.b === to) ||
    edits.all("host").some((host) => host.attachment.at === "port" && host.attachment.port === to)
  ) {
    return `Port ${target.label} is in use; choose a free one.`;
  }
  for (const host of edits.all("host"))
    if (host.attachment.at === "port" && host.attachment.port === from)
      edits.patch("host", host.id, { attachment: { at: "port", port: to } });
  for (const link of edits.all("link")) {
    if (link.a === from) edits.patch("link", link.id, { a: to });
    if (link.b === from) edits.patch("link", link.id, { b: to });
  }
  const carried = ({
    enabled,
    pvid,
    untagged,
    tagged,
    admit,
    ingressFilter,
    guards,
    note,
  }: typeof source) => ({ enabled, pvid, untagged, tagged, admit, ingressFilter, guards, note });
  edits.patch("port", to, carried(source));
  edits.patch("port", from, carried(target));
  return null;
}
