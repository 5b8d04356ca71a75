import { NO_GUARDS, type Port, type Vid } from "../plan";
import { aPort } from "../testing/build-plan";
import { v } from "../testing/written";
import { classify, dropReason, dropsTagged, egressTag, isConsistent, isMember, modeOf } from ".";

const numbers = (list: readonly number[]): Vid[] => list.map(v);
type Met = Port & { readonly dropsOwnTag?: boolean };
const port = (fields: Partial<Met>): Met => ({ ...aPort({ device: "d", label: "1" }), ...fields });

/** IEEE 802.1Q sections 6.9 and 8.6.2 step by step, as slowly as they are written. */
function bySteps(at: Met, tag: number | null): number | null {
  const isTagged = tag !== null && tag !== 0;
  // 6.9: acceptable frame types.
  if (at.admit === "tagged" && !isTagged) return null;
  if (at.admit === "untagged" && isTagged) return null;
  // 6.9: the VID parameter, from the tag or else the PVID.
  const joined: number | null = isTagged ? tag : at.pvid;
  if (joined === null) return null;
  const members = [...at.untagged, ...at.tagged] as number[];
  // Not of the standard: gear that takes its own VLAN untagged only.
  if (
    isTagged &&
    at.dropsOwnTag === true &&
    at.tagged.length === 0 &&
    at.untagged.some((vid) => vid === joined)
  )
    return null;
  // 8.6.2: ingress filtering.
  if (at.ingressFilter && !members.includes(joined)) return null;
  return joined;
}

const LISTS = [[], [10], [20], [10, 20]];
const PORTS: Met[] = [null, 10, 20, 30].flatMap((pvid) =>
  LISTS.flatMap((untagged) =>
    LISTS.flatMap((tagged) =>
      (["all", "tagged", "untagged"] as const).flatMap((admit) =>
        [true, false].flatMap((ingressFilter) =>
          [true, false].map((dropsOwnTag) =>
            port({
              pvid: pvid === null ? null : v(pvid),
              untagged: numbers(untagged),
              tagged: numbers(tagged),
              admit,
              ingressFilter,
              dropsOwnTag,
            }),
          ),
        ),
      ),
    ),
  ),
);

test("every port of two VLANs takes every frame as the standard says, and says why where it does not", () => {
  expect(PORTS).toHaveLength(768);
  for (const at of PORTS)
    for (const tag of [null, 0, 10, 20, 30]) {
      const joined = classify(at, tag);
      expect(joined).toBe(bySteps(at, tag));
      expect(dropReason(at, tag) === "").toBe(joined !== null);
    }
});

test.each<[string, Partial<Met>, number | null, string]>([
  ["untagged, tagged only", { admit: "tagged" }, null, "the port admits tagged frames only"],
  ["priority-tagged, tagged only", { admit: "tagged" }, 0, "the port admits tagged frames only"],
  ["untagged, no PVID", {}, null, "no VLAN is set for untagged frames here"],
  [
    "untagged, a PVID that is in no list",
    { pvid: v(10), ingressFilter: true },
    null,
    "untagged frames join VLAN 10 here (its PVID), which is in neither list of the port",
  ],
  ["tagged, untagged only", { admit: "untagged" }, 10, "the port admits untagged frames only"],
  [
    "tagged in a VLAN it has, untagged only",
    { admit: "untagged", tagged: numbers([10]) },
    10,
    "the port admits untagged frames only",
  ],
  ["tagged in a VLAN it lacks", { ingressFilter: true }, 10, "VLAN 10 is not carried here"],
  [
    "tagged in its own VLAN",
    { pvid: v(10), untagged: numbers([10]), dropsOwnTag: true },
    10,
    "this device drops frames tagged with the port's own untagged VLAN 10",
  ],
])("why a frame is dropped: %s", (_, fields, tag, words) => {
  expect(dropReason(port(fields), tag)).toBe(words);
});

test("only an access port drops its own tag, and only on gear that does", () => {
  expect(dropsTagged(port({ dropsOwnTag: true }))).toBe(true);
  expect(dropsTagged(port({ dropsOwnTag: true, tagged: numbers([20]) }))).toBe(false);
  expect(dropsTagged(port({ dropsOwnTag: false }))).toBe(false);
  expect(dropsTagged(port({}))).toBe(false);
});

test("what leaves a port: untagged goes before tagged, and what it lacks does not leave", () => {
  const at = port({ untagged: numbers([10]), tagged: numbers([10, 20]) });
  expect([10, 20, 30].map((vid) => egressTag(at, vid))).toEqual([null, 20, undefined]);
  expect([10, 20, 30].map((vid) => isMember(at, vid))).toEqual([true, true, false]);
});

const EDGE = { ...NO_GUARDS, edge: true };
test.each<[string, Partial<Met>]>([
  ["off", { enabled: false, pvid: v(10), untagged: numbers([10]) }],
  ["undecided", {}],
  ["access", { pvid: v(10) }],
  ["access", { untagged: numbers([10]) }],
  ["access", { pvid: v(10), untagged: numbers([10]), guards: EDGE }],
  ["trunk", { tagged: numbers([10]) }],
  ["trunk", { tagged: numbers([10]), guards: EDGE }],
  ["trunk", { pvid: v(10), untagged: numbers([10]), tagged: numbers([20]) }],
  ["trunk", { pvid: v(10), untagged: numbers([10]), tagged: numbers([20, 30]), guards: EDGE }],
  ["dataVoice", { pvid: v(10), untagged: numbers([10]), tagged: numbers([20]), guards: EDGE }],
])("a port is %s by its membership: %o", (mode, fields) => {
  expect(modeOf(port(fields))).toBe(mode);
});

test.each<[boolean, Partial<Met>]>([
  [true, {}],
  [true, { tagged: numbers([20]) }],
  [false, { untagged: numbers([10]) }],
  [true, { pvid: v(10), untagged: numbers([10]) }],
  [true, { pvid: v(10), untagged: numbers([10]), tagged: numbers([20]) }],
  [false, { pvid: v(10) }],
  [false, { pvid: v(10), untagged: numbers([20]) }],
  [false, { pvid: v(10), untagged: numbers([10, 20]) }],
  [false, { pvid: v(10), untagged: numbers([10]), tagged: numbers([10]) }],
])("PVID and lists agree: %p for %o", (agree, fields) => {
  expect(isConsistent(port(fields))).toBe(agree);
});
