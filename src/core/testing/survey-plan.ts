import { asPrefix6, parseAddress, parsePrefix } from "../address";
import { must } from "../kernel";
import {
  applyChanges,
  BLANK_GEAR,
  BLANK_ROOM,
  NO_BASELINE,
  NO_PAPER,
  NO_RADIO_RULES,
  CONVENTIONS,
  emptyPlan,
  type Change,
  type Gear,
  type Plan,
  type Room,
  type Site,
} from "../plan";
import { testId } from "./build-plan";

interface RoomText {
  readonly name: string;
  readonly needs: string;
  readonly kind?: Room["kind"];
  readonly cabinet?: string;
  readonly metres?: number;
  readonly group?: string;
}
interface GearText extends Pick<Gear, "name" | "kind" | "fate"> {
  readonly room?: string;
  readonly model?: string;
  readonly dhcp?: Gear["dhcp"];
  readonly prefixes?: readonly string[];
  readonly addresses?: readonly string[];
  readonly facesInternet?: boolean;
  readonly supportUntil?: string;
}
export interface SurveyText {
  readonly name: string;
  readonly kind: Site["kind"];
  readonly rooms: readonly RoomText[];
  readonly gear: readonly GearText[];
}

/** The rooms and the gear of a survey as entities; ids come from the names. */
export function surveyEntities(survey: SurveyText): { rooms: Room[]; gear: Gear[] } {
  const id = (kind: string, name: string) => testId(kind, `${survey.name}/${name}`);
  const rooms = survey.rooms.map((room, position): Room => ({
    ...BLANK_ROOM,
    id: id("room", room.name),
    name: room.name,
    position,
    kind: room.kind ?? "room",
    cabinet: room.cabinet === undefined ? null : id("room", room.cabinet),
    cableCm: room.metres === undefined ? null : room.metres * 100,
    group: room.group ?? "",
    needs: room.needs,
  }));
  const gear = survey.gear.map((found): Gear => ({
    ...BLANK_GEAR,
    id: id("gear", found.name),
    name: found.name,
    kind: found.kind,
    fate: found.fate,
    model: found.model ?? "",
    room: found.room === undefined ? null : id("room", found.room),
    dhcp: found.dhcp ?? "unknown",
    facesInternet: found.facesInternet ?? false,
    supportUntil: found.supportUntil ?? null,
    prefixes: (found.prefixes ?? []).map((text) => must(parsePrefix(text), text)),
    addresses: (found.addresses ?? []).map((text) => must(parseAddress(text), text)),
  }));
  return { rooms, gear };
}

/** A site of which only the survey is known. */
export function surveyPlan(
  survey: SurveyText,
  conventions: Partial<Site["conventions"]> = {},
  blocks6: readonly string[] = [],
): Plan {
  const { rooms, gear } = surveyEntities(survey);
  const blocks = blocks6.map((text) => must(asPrefix6(parsePrefix(text)), text));
  const site: Site = {
    id: testId("site", survey.name),
    name: survey.name,
    kind: survey.kind,
    timeZone: "Europe/London",
    blocks,
    conventions: { ...CONVENTIONS, ...conventions },
    radio: NO_RADIO_RULES,
    paper: NO_PAPER,
    baseline: NO_BASELINE,
    keepClear: [],
  };
  const changes = [
    ...rooms.map((after) => ({ kind: "room", id: after.id, before: null, after }) as Change),
    ...gear.map((after) => ({ kind: "gear", id: after.id, before: null, after }) as Change),
  ];
  const built = applyChanges(emptyPlan(site), changes);
  return must(built.ok ? built.value : null, "the survey holds together");
}
