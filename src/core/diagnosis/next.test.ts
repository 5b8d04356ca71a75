import { fennelStreet } from "../../../demo/fennel-street";
import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { PlanIndex } from "../plan";
import { asClient } from "../probe";
import { nextReadings, type Branch } from "./next";
import type { Reading } from "./predict";
import { Study } from "./study";

const nothing = (host: string): Reading => ({
  id: "complaint",
  ask: {
    what: "try",
    question: asClient({ at: "host", host }, { to: "internet", service: null }),
  },
  seen: { is: "text", text: "nothing" },
});

const seenIn = ({ isAsPlanned, words }: Branch): Reading["seen"] =>
  isAsPlanned ? { is: "planned" } : { is: "text", text: words };

describe.each([lockkeepersHouse, fennelStreet])("%p", (made) => {
  const study = new Study(PlanIndex.of(made()));
  const hosts = [...study.index.plan.host.values()].filter(({ manner }) => manner !== "typed").slice(0, 6);
  const complaints = hosts.map(({ id }) => nothing(id)).filter((reading) => !study.isAsPlanned(reading));

  test("an outcome that is tapped leaves what it said it would leave", () => {
    expect(complaints.length).toBeGreaterThan(1);
    const lost = complaints.flatMap((first) =>
      nextReadings(study, study.diagnose([first]))
        .slice(0, 4)
        .flatMap(({ ask, branches }) =>
          branches.flatMap((branch) => {
            const said = branch.left.map(({ suspect }) => suspect);
            const readings = [first, { id: "next", ask, seen: seenIn(branch) }];
            const { candidates } = study.among(readings, said);
            const left = new Set(
              candidates.filter(({ count }) => count === 2).map(({ suspect }) => suspect.id),
            );
            return said.flatMap(({ id, kind }) => (left.has(id) ? [] : [`${kind}: ${branch.words}`]));
          }),
        ),
    );
    expect(lost).toEqual([]);
  });

  test("outcomes of one reading are told apart by their words", () => {
    for (const first of complaints)
      for (const { branches } of nextReadings(study, study.diagnose([first])))
        expect(new Set(branches.map(({ words }) => words)).size).toBe(branches.length);
  });
});
