import { nameOf, wallEndName, type ProbeQuestion, type Service, type Wall, type WallEnd } from "../plan";
import { keepProbe as keepProbeIn, setExpected, setWall as setWallBetween } from "../planners";
import { command } from "./command";

export const renameZone = command<{ readonly zone: string; readonly name: string }>("rename-zone", {
  says: ({ zone, name }, index) => `Zone ${nameOf(index, "zone", zone)} is now ${name}`,
  run: ({ draft }, { zone, name }) => draft.patch("zone", zone, { name }),
});

export const openZone = command<{ readonly zone: string; readonly open: boolean }>("open-zone", {
  says: ({ zone, open }, index) =>
    `${nameOf(index, "zone", zone)}: its segments ${open ? "may talk to one another" : "are kept apart"}`,
  run: ({ draft }, { zone, open }) => draft.patch("zone", zone, { insideOpen: open }),
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
    (door === "services" ? services.map((service) => service.name).join(", ") : door),
  run: ({ draft, ids }, { from, to, door, services, reason }) =>
    setWallBetween(draft, ids, { from, to, door, services, reason }),
});

export const keepProbe = command<{
  readonly name: string;
  readonly question: ProbeQuestion;
  readonly passes: boolean;
  readonly segment: string | null;
}>("keep-probe", {
  says: ({ name }) => `Kept the probe ${name}`,
  run: (bench, { name, question, passes, segment }) =>
    keepProbeIn(bench, question, { name, passes, segment }),
});

export const expectProbe = command<{ readonly probe: string; readonly passes: boolean }>("expect-probe", {
  says: ({ probe, passes }, index) =>
    `${nameOf(index, "expectation", probe)}: has to ${passes ? "pass" : "be stopped"}`,
  run: (bench, { probe, passes }) => setExpected(bench, probe, passes),
});

export const dropProbe = command<{ readonly probe: string }>("drop-probe", {
  says: ({ probe }, index) => `No longer kept: ${nameOf(index, "expectation", probe)}`,
  run: ({ draft }, { probe }) => draft.remove("expectation", probe),
});
