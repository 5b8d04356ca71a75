import { nameOf, wallEndName, type ProbeQuestion, type Service, type Wall, type WallEnd } from "../plan";
import { keepProbe as keepProbeIn, setExpected, setWall as setWallBetween } from "../planners";
import { serviceNames } from "../policy";
import { command } from "./command";

export const renameZone = command<{ readonly zone: string; readonly name: string }>("rename-zone", {
  says: ({ zone, name }, index) => `Zone ${nameOf(index, "zone", zone)} is now ${name}`,
  run: ({ edits }, { zone, name }) => edits.patch("zone", zone, { name }),
});

export const openZone = command<{ readonly zone: string; readonly open: boolean }>("open-zone", {
  says: ({ zone, open }, index) =>
    `${nameOf(index, "zone", zone)}: its segments ${open ? "may talk to one another" : "are kept apart"}`,
  run: ({ edits }, { zone, open }) => edits.patch("zone", zone, { insideOpen: open }),
});

export const setWall = command<{
  readonly from: WallEnd;
  readonly to: WallEnd;
  readonly door: Wall["door"];
  readonly services: readonly Service[];
  readonly reason: string;
}>("set-wall", {
  says: ({ from, to, door, services }, index) =>
    `Wall ${wallEndName(index, from)} to ${wallEndName(index, to)}: ` +
    (door === "services" ? serviceNames(services).join(", ") : door),
  run: ({ edits, ids }, { from, to, door, services, reason }) =>
    setWallBetween(edits, ids, { from, to, door, services, reason }),
});

export const keepProbe = command<{
  readonly name: string;
  readonly question: ProbeQuestion;
  readonly passes: boolean;
  readonly segment: string | null;
}>("keep-probe", {
  says: ({ name }) => `Kept the probe ${name}`,
  run: (context, { name, question, passes, segment }) =>
    keepProbeIn(context, question, { name, passes, segment }),
});

export const expectProbe = command<{ readonly probe: string; readonly passes: boolean }>("expect-probe", {
  says: ({ probe, passes }, index) =>
    `${nameOf(index, "expectation", probe)}: has to ${passes ? "pass" : "be stopped"}`,
  run: (context, { probe, passes }) => setExpected(context, probe, passes),
});

export const dropProbe = command<{ readonly probe: string }>("drop-probe", {
  says: ({ probe }, index) => `No longer kept: ${nameOf(index, "expectation", probe)}`,
  run: ({ edits }, { probe }) => edits.remove("expectation", probe),
});
