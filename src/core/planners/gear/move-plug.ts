import type { Bench, Refusal } from "../planner";

/**
 * Takes the cable or the end device out of one port and puts it into another, with what the first carried;
 * the first is free then.
 */
export function movePlug({ draft }: Pick<Bench, "draft">, from: string, to: string): Refusal {
  const [source, target] = [draft.need("port", from), draft.need("port", to)];
  if (
    draft.all("link").some((link) => link.a === to || link.b === to) ||
    draft.all("host").some((host) => host.attachment.at === "port" && host.attachment.port === to)
  ) {
    return `Port ${target.label} is in use; choose a free one.`;
  }
  for (const host of draft.all("host"))
    if (host.attachment.at === "port" && host.attachment.port === from)
      draft.patch("host", host.id, { attachment: { at: "port", port: to } });
  for (const link of draft.all("link")) {
    if (link.a === from) draft.patch("link", link.id, { a: to });
    if (link.b === from) draft.patch("link", link.id, { b: to });
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
  draft.patch("port", to, carried(source));
  draft.patch("port", from, carried(target));
  return null;
}
