import { byNaturalText } from "../../kernel";
import type { Purpose, Segment, WallEnd } from "../../plan";
import { setWall } from "../../planners";
import { sameEnd, SERVICES } from "../../policy";
import { groupKey, surveyed } from "../groups";
import { INTENTS, type Intent } from "../purposes";
import { frontOf, isY, standsApart, type Frame } from "./frame";

const endOf = (segment: Segment): WallEnd => ({ at: "zone", zone: segment.zone });

/** A flat or a workshop of a house gets the internet and nothing of the household's. */
const keptOut = (frame: Frame, intent: Intent, segment: Segment): boolean =>
  frame.edits.plan.site.kind === "home" && segment.group !== "" && intent.to !== "internet";

/**
 * Where routers separate, a door can only lead to the network in front: a group's own router lets in nothing
 * that was not asked for from inside. What the purposes would want all the same is said.
 */
function walledIn(frame: Frame, from: Segment, to: WallEnd): boolean {
  const front = frontOf(frame);
  if (front === null || to.at !== "zone" || to.zone === from.zone) return false;
  const there = frame.edits.all("segment").filter((segment) => segment.zone === to.zone);
  if (
    there.some((segment) => groupKey({ purpose: segment.purpose, name: segment.group }) === groupKey(front))
  )
    return false;
  const note =
    `${from.name} can open nothing in ${there[0]?.name ?? "the other network"}: the ` +
    "router there lets in only answers. If that is wanted, separate them by VLANs.";
  if (!frame.notes.includes(note)) frame.notes.push(note);
  return true;
}

function draftWall(frame: Frame, intent: (typeof INTENTS)[number], from: Segment, to: WallEnd): void {
  const { edits: edits, ids } = frame;
  const own = endOf(from);
  if (walledIn(frame, from, to) || sameEnd(own, to)) return;
  if (edits.all("wall").some((wall) => sameEnd(wall.from, own) && sameEnd(wall.to, to))) return;
  // In front of a Y all that leaves the networks behind it comes from the front network's own addresses;
  // their own routers hold them to what they may.
  const leads = intent.to === "internet" && intent.from === "management" && isY(frame);
  const isOpen = intent.services === "open" || leads;
  const services = isOpen ? [] : SERVICES.filter((service) => intent.services.includes(service.name));
  const reason = leads ? "the way out of the networks behind it" : intent.reason;
  setWall(edits, ids, { from: own, to, door: isOpen ? "open" : "services", services, reason });
}

/**
 * The doors that the purposes need; every other pair stays closed, and a pair that has a wall already keeps
 * it. Where several groups have one purpose, a door to a control cell is a door to each.
 */
export function draftWalls(frame: Frame): void {
  const { edits: edits } = frame;
  const segments = edits
    .all("segment")
    .filter((segment) => !standsApart(frame, { purpose: segment.purpose, name: segment.group }))
    .sort((a, b) => byNaturalText(a.name, b.name));
  const of = (purpose: Purpose) => segments.filter((segment) => segment.purpose === purpose);
  const signsIn = surveyed(frame.index).some(({ need }) => /sign-in|auth/i.test(need.what));
  for (const intent of INTENTS) {
    if (intent.services !== "open" && intent.services.includes("radius") && !signsIn) continue;
    for (const from of of(intent.from)) {
      if (keptOut(frame, intent, from)) continue;
      const ends: WallEnd[] =
        intent.to === "internet" || intent.to === "gateway" ? [{ at: intent.to }] : of(intent.to).map(endOf);
      for (const to of ends) draftWall(frame, intent, from, to);
    }
  }
}
