import { entityOf, nameOf, type Kind, type PlanIndex } from "@/core/plan";
import type { Remark } from "@/core/records";
import type { Selection } from "../../frame/ui-state";

/** What is remarked upon; null for the site as a whole. */
export type About = Remark["about"];

const OF_ONE: Partial<Record<Selection["what"], Kind>> = {
  segment: "segment",
  room: "room",
  line: "line",
  gear: "gear",
  host: "host",
  interface: "interface",
  device: "device",
  ssid: "ssid",
  link: "link",
  rule: "rule",
  forward: "forward",
  exception: "exception",
  service: "service",
  conduit: "conduit",
  signIn: "signIn",
  window: "window",
  wish: "wish",
};

function subjectOf(selection: Selection): { readonly kind: Kind; readonly id: string } | null {
  if (selection.what === "ports") {
    const [id] = selection.ids;
    return id === undefined ? null : { kind: "port", id };
  }
  const kind = OF_ONE[selection.what];
  return kind !== undefined && "id" in selection && selection.id !== null ? { kind, id: selection.id } : null;
}

/** What a remark is about that is made while this is selected: one thing, or the whole site. */
export function aboutOf(index: PlanIndex, selection: Selection | null): About {
  const subject = selection === null ? null : subjectOf(selection);
  // What has gone since is no thing to remark on.
  if (subject === null || entityOf(index.plan, subject.kind, subject.id) === undefined) return null;
  return { ...subject, name: nameOf(index, subject.kind, subject.id).slice(0, 400) };
}
