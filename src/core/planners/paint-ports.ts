import { NO_GUARDS, type Draft, type Port, type Vid } from "../plan";

/** What a selection of ports is painted as. */
export type PortRole =
  | { readonly role: "access"; readonly vid: Vid }
  | { readonly role: "dataVoice"; readonly vid: Vid; readonly voice: Vid }
  | { readonly role: "trunk"; readonly untagged: Vid | null; readonly tagged: readonly Vid[] }
  /** Off; in a VLAN of its own that leads nowhere, where there is one. */
  | { readonly role: "park"; readonly vid?: Vid | null }
  /** The way back in: a port in a small network of its own that stays as it is until the end. */
  | { readonly role: "wayBack"; readonly vid: Vid }
  | { readonly role: "undecided" };

const EDGE: Port["guards"] = { ...NO_GUARDS, edge: true, bpduGuard: true, macLimit: 1 };
const UPLINK: Port["guards"] = { ...NO_GUARDS, loopGuard: true, arpTrust: true };

/** The fields a role sets: always consistent (untagged is the PVID, or neither), with the guards that suit it. */
export function fieldsOf(role: PortRole): Partial<Port> {
  switch (role.role) {
    case "access": return { enabled: true, pvid: role.vid, untagged: [role.vid], tagged: [], admit: "all", guards: EDGE };
    case "dataVoice": return { enabled: true, pvid: role.vid, untagged: [role.vid], tagged: [role.voice], admit: "all", guards: { ...EDGE, macLimit: 3 } };
    case "trunk": return {
      enabled: true, pvid: role.untagged, untagged: role.untagged === null ? [] : [role.untagged],
      tagged: role.tagged.filter((vid) => vid !== role.untagged).sort((a, b) => a - b), admit: role.untagged === null ? "tagged" : "all", guards: UPLINK,
    };
    case "park": { const vid = role.vid ?? null; return { enabled: false, pvid: vid, untagged: vid === null ? [] : [vid], tagged: [], admit: "all", guards: NO_GUARDS }; }
    case "wayBack": return { enabled: true, pvid: role.vid, untagged: [role.vid], tagged: [], admit: "untagged", guards: { ...EDGE, macLimit: null } };
    case "undecided": return { enabled: true, pvid: null, untagged: [], tagged: [], admit: "all", guards: NO_GUARDS };
  }
}

export function paintPorts(draft: Draft, ports: readonly string[], role: PortRole): void {
  const fields = fieldsOf(role);
  for (const id of ports) draft.patch("port", id, fields);
}

export const setAccess = (draft: Draft, ports: readonly string[], vid: Vid): void => paintPorts(draft, ports, { role: "access", vid });
export const parkPorts = (draft: Draft, ports: readonly string[]): void => paintPorts(draft, ports, { role: "park" });
