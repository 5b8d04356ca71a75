import { NO_GUARDS, type PlanEdits, type Port, type Vid } from "../../plan";

/** What a selection of ports is painted as. */
export type PortRole =
  | { readonly role: "access"; readonly vid: Vid }
  | { readonly role: "dataVoice"; readonly vid: Vid; readonly voice: Vid }
  | { readonly role: "trunk"; readonly untagged: Vid | null; readonly tagged: readonly Vid[] }
  /** Off; in a VLAN of its own that leads nowhere, where there is one. */
  | { readonly role: "park"; readonly vid?: Vid | null }
  /** The rescue port: a port in a small network of its own that stays as it is until the end. */
  | { readonly role: "wayBack"; readonly vid: Vid }
  | { readonly role: "undecided" };

const EDGE: Port["guards"] = { ...NO_GUARDS, edge: true, bpduGuard: true, macLimit: 1 };
/** A phone has an address of its own in each of two VLANs at times, and the PC behind it has one. */
const PHONE_AND_PC = 3;
const UPLINK: Port["guards"] = { ...NO_GUARDS, loopGuard: true, arpTrust: true };

/**
 * The fields a role sets: always consistent (untagged is the PVID, or neither), with the guards that suit it.
 */
export function fieldsOf(role: PortRole): Partial<Port> {
  switch (role.role) {
    case "access":
      return {
        enabled: true,
        pvid: role.vid,
        untagged: [role.vid],
        tagged: [],
        admit: "untagged",
        guards: EDGE,
      };
    case "dataVoice":
      return {
        enabled: true,
        pvid: role.vid,
        untagged: [role.vid],
        tagged: [role.voice],
        admit: "all",
        guards: { ...EDGE, macLimit: PHONE_AND_PC },
      };
    case "trunk":
      return {
        enabled: true,
        pvid: role.untagged,
        untagged: role.untagged === null ? [] : [role.untagged],
        tagged: role.tagged.filter((vid) => vid !== role.untagged).sort((a, b) => a - b),
        admit: role.untagged === null ? "tagged" : "all",
        guards: UPLINK,
      };
    case "park": {
      const vid = role.vid ?? null;
      return {
        enabled: false,
        pvid: vid,
        untagged: vid === null ? [] : [vid],
        tagged: [],
        admit: "all",
        guards: NO_GUARDS,
      };
    }
    case "wayBack":
      return {
        enabled: true,
        pvid: role.vid,
        untagged: [role.vid],
        tagged: [],
        admit: "untagged",
        guards: { ...EDGE, macLimit: null },
      };
    case "undecided":
      return { enabled: true, pvid: null, untagged: [], tagged: [], admit: "all", guards: NO_GUARDS };
  }
}

/** What a port is by its membership, as far as painting asks. */
function classOf({ enabled, untagged, tagged }: Port): "access" | "trunk" | "none" {
  if (!enabled || untagged.length + tagged.length === 0) return "none";
  return tagged.length > 1 || (tagged.length > 0 && untagged.length === 0) ? "trunk" : "access";
}

const CLASS_OF: Readonly<Record<PortRole["role"], ReturnType<typeof classOf>>> = {
  access: "access",
  dataVoice: "access",
  wayBack: "access",
  trunk: "trunk",
  park: "none",
  undecided: "none",
};

/**
 * The guards of a port that gets another make-up: what somebody set on it stays while it is the same sort of
 * port, and what does not depend on the sort (sign-in and its profile, a restricted role, trust on what stays
 * an uplink) stays at any rate.
 */
function guardsAfter(port: Port, role: PortRole): Port["guards"] {
  const [was, will] = [classOf(port), CLASS_OF[role.role]];
  const usual = fieldsOf(role).guards ?? NO_GUARDS;
  if (will === "none") return { ...usual, profile: port.guards.profile };
  const { profile, restrictedRole, trustsMarks, signIn, dhcpTrust, arpTrust } = port.guards;
  if (was !== will)
    return {
      ...usual,
      profile,
      restrictedRole,
      trustsMarks,
      ...(will === "access" ? { signIn } : { dhcpTrust, arpTrust: usual.arpTrust || arpTrust }),
    };
  return { ...port.guards, macLimit: limitAfter(port, role, usual.macLimit) };
}

/**
 * The limit that somebody set stays; the usual one of what the port was becomes that of what it is. A phone
 * needs room beside the PC.
 */
function limitAfter({ tagged, guards }: Port, { role }: PortRole, usual: number | null): number | null {
  const usualBefore = tagged.length === 0 ? EDGE.macLimit : PHONE_AND_PC;
  if (role === "wayBack" || guards.macLimit === usualBefore) return usual;
  return role === "dataVoice" && guards.macLimit !== null
    ? Math.max(guards.macLimit, PHONE_AND_PC)
    : guards.macLimit;
}

export function paintPorts(edits: PlanEdits, ports: readonly string[], role: PortRole): void {
  const fields = fieldsOf(role);
  const cabled = new Set(edits.all("link").flatMap(({ a, b }) => [a, b]));
  for (const id of ports) {
    const port = edits.need("port", id);
    const guards = guardsAfter(port, role);
    // More gear hangs there, with who knows how many devices behind it: the usual limit would shut them out.
    const isUsual = guards.macLimit === EDGE.macLimit || guards.macLimit === PHONE_AND_PC;
    edits.patch("port", id, {
      ...fields,
      guards:
        cabled.has(id) && isUsual && port.guards.macLimit === null ? { ...guards, macLimit: null } : guards,
    });
  }
}

export const setAccess = (edits: PlanEdits, ports: readonly string[], vid: Vid): void =>
  paintPorts(edits, ports, { role: "access", vid });
export const parkPorts = (edits: PlanEdits, ports: readonly string[]): void =>
  paintPorts(edits, ports, { role: "park" });
