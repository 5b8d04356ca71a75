import type { Derived, PlanIndex, Port, Segment } from "../plan";
import { fieldsOf, type PortRole } from "../planners";
import { CARRY } from "../forwarding";
import { modeOf, type PortMode } from "../fabric";
import { putInto } from "../kernel";

/** A VLAN as tape: its number, the two characters on it, its colours. */
export interface Tape {
  readonly vid: number;
  readonly mark: string;
  readonly name: string;
  readonly base: Segment["tape"]["base"];
  readonly tracer: Segment["tape"]["tracer"];
}

/**
 * What a cable in this port would look like: the tip is the untagged VLAN, a ring stands for each tagged one.
 */
export interface Jacket {
  /**
   * What the membership amounts to; `routed` for a port with an interface of its own, `plain` on gear that
   * knows no VLANs.
   */
  readonly mode: PortMode | "routed" | "plain";
  readonly tip: Tape | null;
  readonly rings: readonly Tape[];
  /** VLANs that have to get through here and don't. */
  readonly missing: readonly Tape[];
}

/** A VLAN that carries no segment wears a white tape with the last two figures of its number. */
export function tapeOf(index: PlanIndex, domain: string | null, vid: number): Tape {
  const segment = index.segmentOn(domain, vid);
  if (segment !== undefined)
    return {
      vid,
      mark: segment.mark,
      name: segment.name,
      base: segment.tape.base,
      tracer: segment.tape.tracer,
    };
  return {
    vid,
    mark: String(vid).padStart(2, "0").slice(-2),
    name: index.vlanOf(domain, vid)?.name ?? `VLAN ${vid}`,
    base: "white",
    tracer: null,
  };
}

/** The slots of a domain's jackets in the order of the VIDs: every VLAN that carries a segment. */
export const tapeSlots = (index: PlanIndex, domain: string | null): Tape[] =>
  [
    ...new Set(
      [...index.plan.segment.values()].flatMap((segment) => {
        const vlan = segment.vlan === null ? undefined : index.plan.vlan.get(segment.vlan);
        return vlan === undefined || vlan.domain !== domain ? [] : [Number(vlan.vid)];
      }),
    ),
  ]
    .sort((a, b) => a - b)
    .map((vid) => tapeOf(index, domain, vid));

/** Ports that lack a VLAN which has to get through them, with the VIDs. */
const LACKING: Derived<ReadonlyMap<string, readonly number[]>> = {
  reads: CARRY.reads,
  make: (index) => {
    const lacking = new Map<string, number[]>();
    for (const gap of index.derived(CARRY).breaks) {
      for (const port of gap.lacking) putInto(lacking, port.id, gap.vid);
    }
    return lacking;
  },
};

export function jacketOf(index: PlanIndex, port: Port): Jacket {
  const domain = index.plan.device.get(port.device)?.domain ?? null;
  const untagged = port.pvid ?? port.untagged[0] ?? null;
  const routed = (index.groups("interfacesByPort").get(port.id)?.length ?? 0) > 0;
  const plain = index.plan.device.get(port.device)?.bridging === "plain";
  const bridged = plain ? "plain" : modeOf(port);
  const enabledMode = routed ? "routed" : bridged;
  return {
    mode: port.enabled ? enabledMode : "off",
    tip: untagged === null ? null : tapeOf(index, domain, untagged),
    rings: port.tagged.map((vid) => tapeOf(index, domain, vid)),
    missing: [...new Set(index.derived(LACKING).get(port.id) ?? [])]
      .sort((a, b) => a - b)
      .map((vid) => tapeOf(index, domain, vid)),
  };
}

/** What a port would look like once it is painted. */
export const jacketOfRole = (index: PlanIndex, port: Port, role: PortRole): Jacket => ({
  ...jacketOf(index, { ...port, ...fieldsOf(role) }),
  missing: [],
});

/** "Staff untagged, 2 tagged: 30, 90": the jacket in words. */
export function jacketText({ mode, tip, rings, missing }: Jacket): string {
  if (mode === "off") return "off";
  if (mode === "routed") return "routed, in no VLAN";
  if (mode === "plain") return "passes every tag";
  if (mode === "undecided")
    return missing.length === 0
      ? "to decide"
      : `to decide; missing ${missing.map((tape) => `${tape.name} (${tape.vid})`).join(", ")}`;
  const parts = [
    tip === null ? "nothing untagged" : `${tip.name} (${tip.vid}) untagged`,
    rings.length === 0 ? "" : `${rings.length} tagged: ${rings.map((tape) => tape.vid).join(", ")}`,
    missing.length === 0 ? "" : `missing ${missing.map((tape) => `${tape.name} (${tape.vid})`).join(", ")}`,
  ];
  return parts.filter((part) => part !== "").join("; ");
}
