import type { Draft, Vid } from "../plan";

/** Adds a tagged VLAN to ports that lack it. */
export function carryOn(draft: Draft, ports: readonly string[], vid: Vid): void {
  for (const id of ports) {
    const port = draft.need("port", id);
    if (port.tagged.includes(vid) || port.untagged.includes(vid)) continue;
    draft.patch("port", id, { enabled: true, tagged: [...port.tagged, vid].sort((a, b) => a - b) });
  }
}
