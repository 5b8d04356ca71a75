import type { Change } from "../plan";

/** Kinds that are entered on a device and name it. */
const OWN = ["port", "interface", "lag", "rule", "radio", "deviceVlan"] as const;
type Own = (typeof OWN)[number];
const isOwn = (kind: Change["kind"]): kind is Own => (OWN as readonly string[]).includes(kind);

/** The device that a change is made on; null for what is on none. */
export function deviceOf({ kind, id, before, after }: Change): string | null {
  if (kind === "device") return id;
  const entity = after ?? before;
  if (entity === null) return null;
  if (kind === "scope" && "serverDevice" in entity) return entity.serverDevice;
  return isOwn(kind) && "device" in entity ? (entity.device ?? null) : null;
}
