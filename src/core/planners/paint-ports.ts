import type { Draft, Port, Vid } from "../plan";

/** What a selection of ports is painted as. */
export type PortRole =
  | { readonly role: "access"; readonly vid: Vid }
  | { readonly role: "dataVoice"; readonly vid: Vid; readonly voice: Vid }
  | { readonly role: "trunk"; readonly untagged: Vid | null; readonly tagged: readonly Vid[] }
  | { readonly role: "park" }
  | { readonly role: "undecided" };

const EDGE: Port["guards"] = { edge: true, bpduGuard: true, loopGuard: false, dhcpTrust: false, arpTrust: false, signIn: false, macLimit: 1 };
const UPLINK: Port["guards"] = { edge: false, bpduGuard: false, loopGuard: true, dhcpTrust: false, arpTrust: true, signIn: false, macLimit: null };
const NONE: Port["guards"] = { edge: false, bpduGuard: false, loopGuard: false, dhcpTrust: false, arpTrust: false, signIn: false, macLimit: null };

/** The fields a role sets: always consistent (untagged is the PVID, or neither), with the guards that suit it. */
export function fieldsOf(role: PortRole): Partial<Port> {
  switch (role.role) {
    case "access": return { enabled: true, pvid: role.vid, untagged: [role.vid], tagged: [], admit: "all", guards: EDGE };
    case "dataVoice": return { enabled: true, pvid: role.vid, untagged: [role.vid], tagged: [role.voice], admit: "all", guards: { ...EDGE, macLimit: 3 } };
    case "trunk": return {
      enabled: true, pvid: role.untagged, untagged: role.untagged === null ? [] : [role.untagged],
      tagged: role.tagged.filter((vid) => vid !== role.untagged).sort((a, b) => a - b), admit: role.untagged === null ? "tagged" : "all", guards: UPLINK,
    };
    case "park": return { enabled: false, pvid: null, untagged: [], tagged: [], admit: "all", guards: NONE };
    case "undecided": return { enabled: true, pvid: null, untagged: [], tagged: [], admit: "all", guards: NONE };
  }
}

export function paintPorts(draft: Draft, ports: readonly string[], role: PortRole): void {
  const fields = fieldsOf(role);
  for (const id of ports) draft.patch("port", id, fields);
}

export const setAccess = (draft: Draft, ports: readonly string[], vid: Vid): void => paintPorts(draft, ports, { role: "access", vid });
export const parkPorts = (draft: Draft, ports: readonly string[]): void => paintPorts(draft, ports, { role: "park" });
