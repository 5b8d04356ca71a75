import fc from "fast-check";
import { BRAMBLEWICK, FENNEL_STREET, LOCKKEEPERS_HOUSE } from "../../../demo/surveys";
import { must } from "../kernel";
import {
  applyChanges,
  CONVENTIONS,
  PlanEdits,
  PlanIndex,
  PURPOSES,
  type HostKind,
  type Plan,
  type Site,
} from "../plan";
import { addHostKind, isHostName } from "../planners";
import { SERVICES } from "../policy";
import { surveyPlan, type SurveyText } from "../testing/survey-plan";
import { testId } from "../testing/build-plan";
import { CATALOGUE, catalogueOf, portPowerMw } from "../catalogue";
import { groupTitle, surveyed } from "./groups";
import { schoolOf } from "./school";
import { tallyCabinets, tallySurvey } from "./tally";
import { HostNames } from "./host-names";
import { INTENTS, PURPOSE_ROWS, PURPOSE_WORDS } from "./purposes";

const labWith = (
  needs: string,
  kind: Site["kind"] = "office",
  group = "",
  conventions: Partial<Site["conventions"]> = {},
): PlanIndex =>
  PlanIndex.of(
    surveyPlan(
      { name: "Fennel annexe", kind, rooms: [{ name: "Lab", needs, group }], gear: [] },
      conventions,
    ),
  );
const groups = (index: PlanIndex) =>
  tallySurvey(index)
    .groups.filter((g) => g.group.purpose !== "management")
    .map((g) => `${groupTitle(index.plan.site, g.group)} ${g.now}/${g.planned}`);

describe("the catalogue", () => {
  test("every word and every other word stands for one kind", () => {
    const words = CATALOGUE.flatMap((kind) => [kind.word, ...kind.aliases]).map((word) => word.toLowerCase());
    expect(words.filter((word, i) => words.indexOf(word) !== i)).toEqual([]);
  });

  test("what must never reach the internet is in no segment open to it, but printers and scanners", () => {
    const open = new Set(
      INTENTS.filter((intent) => intent.to === "internet" && intent.services === "open").map(
        (intent) => intent.from,
      ),
    );
    expect(
      CATALOGUE.filter((kind) => kind.internet === "never" && open.has(kind.purpose)).map(
        (kind) => kind.word,
      ),
    ).toEqual(["printer", "scanner"]);
  });

  test("every intent's services exist, and every purpose has its row and its words", () => {
    const known = SERVICES.map((service) => service.name);
    for (const intent of INTENTS)
      if (intent.services !== "open")
        expect(intent.services.filter((name) => !known.includes(name))).toEqual([]);
    expect(Object.keys(PURPOSE_ROWS).sort()).toEqual([...PURPOSES].sort());
    expect(Object.keys(PURPOSE_WORDS).sort()).toEqual([...PURPOSES].sort());
  });

  test("the power of each class is what a port sets aside (IEEE 802.3, section 145.2.8)", () => {
    expect([null, 0, 1, 2, 3, 4, 5, 6, 7, 8].map(portPowerMw)).toEqual([
      0, 15_400, 4000, 7000, 15_400, 30_000, 45_000, 60_000, 75_000, 90_000,
    ]);
  });

  test("a kind of the site's own goes before the catalogue's of that word", () => {
    const plan = surveyPlan({
      name: "Fennel annexe",
      kind: "office",
      rooms: [{ name: "Lab", needs: "2 camera, 1 kiosk" }],
      gear: [],
    });
    const edits = new PlanEdits(plan);
    let made = 0;
    const context = { edits, index: PlanIndex.of(plan), ids: () => testId("kind", `${(made += 1)}`) };
    addHostKind(context, "kiosk", { purpose: "guests", base: "pc", poeClass: 4 });
    addHostKind(context, "camera", { purpose: "instruments", base: "camera" } satisfies Partial<HostKind>);
    const applied = applyChanges(plan, edits.changes());
    const index = PlanIndex.of(must(applied.ok ? applied.value : null, "applies"));
    expect(catalogueOf(index.plan).length).toBe(CATALOGUE.length + 2);
    expect(groups(index)).toEqual(["Imaging 2/3", "Guests 1/2"]);
    expect(tallySurvey(index).poeMw).toBe(30_000);
  });
});

describe("groups", () => {
  test("a phone with a PC is one socket, two addresses, in two segments", () => {
    const index = labWith("3 PC+phone");
    expect(groups(index)).toEqual(["Staff 3/4", "Phones 3/4"]);
    expect(tallySurvey(index)).toMatchObject({ sockets: 3, hosts: 6, poeMw: 21_000 });
  });

  test("growth is rounded up once for a segment; a line's own growth goes before the site's", () => {
    const rooms = Array.from({ length: 10 }, (_, i) => ({ name: `Room ${i}`, needs: "1 PC" }));
    expect(
      groups(PlanIndex.of(surveyPlan({ name: "Fennel annexe", kind: "office", rooms, gear: [] }))),
    ).toEqual(["Staff 10/13"]);
    expect(groups(labWith("10 PC +100 %"))).toEqual(["Staff 10/20"]);
    expect(groups(labWith("10 PC", "office", "", { growth: 0 }))).toEqual(["Staff 10/10"]);
  });

  test("whose it is: a flat takes its television, a department its people, a cell is its room's", () => {
    expect(groups(labWith("1 PC, 1 television", "home", "Lodger"))).toEqual(["Lodger 2/3"]);
    expect(groups(labWith("1 PC, 1 camera", "office", "Surgery"))).toEqual(["Surgery 1/2", "Cameras 1/2"]);
    expect(groups(labWith("1 controller, 1 PC", "industrial"))).toEqual(["Office 1/2", "Lab 1/2"]);
    expect(groups(labWith("1 controller for Press, 1 PC for Press", "industrial"))).toEqual([
      "Press 1/2",
      "Press 1/2",
    ]);
    expect(groups(labWith("2 guest for the Surgery"))).toEqual(["Guests Surgery 2/3"]);
  });

  test("a crowd has no sockets, a spare socket no address, a switch neither", () => {
    expect(tallySurvey(labWith("60 guests, 4 spare sockets, 2 switches"))).toMatchObject({
      sockets: 4,
      hosts: 62,
    });
    expect(surveyed(labWith("60 guests, 4 spare sockets")).map(({ need }) => need.kind.role)).toEqual([
      "crowd",
      "socket",
    ]);
  });

  test("a cabinet's ports and watts are its own and those of the rooms that lead to it", () => {
    const tally = tallySurvey(PlanIndex.of(surveyPlan(FENNEL_STREET)));
    const cabinets = tallyCabinets(tally);
    expect(cabinets.reduce((sum, cabinet) => sum + cabinet.sockets, 0)).toBe(
      tally.sockets + tally.inCabinets,
    );
    expect(cabinets.reduce((sum, cabinet) => sum + cabinet.poeMw, 0)).toBe(tally.poeMw);
    expect(cabinets.map(({ cabinet, rooms }) => `${cabinet.name} ${rooms}`)).toEqual([
      "Cabinet A 12",
      "Cabinet B 4",
    ]);
  });
});

describe("which separation fits", () => {
  const survey = (kind: Site["kind"], needs: string, model: string): SurveyText => ({
    name: "Annexe",
    kind,
    rooms: [{ name: "Hall", kind: "cabinet", needs }],
    gear: [{ name: "Old switch", kind: "switch", fate: "keep", room: "Hall", model }],
  });
  const school = (text: SurveyText, conventions: Partial<Site["conventions"]> = {}) =>
    schoolOf(PlanIndex.of(surveyPlan(text, conventions)));

  test("plain gear and few groups: routers; many groups or managed gear: VLANs; it says which", () => {
    expect(school(survey("home", "1 PC, 1 television", "switch-5-plain"))).toMatchObject({
      school: "routers",
      reason: expect.stringMatching(/know no VLANs, and 2 groups need no more than 2 routers/),
    });
    expect(
      school(survey("home", "1 PC, 1 television, 1 camera, 1 card terminal, 2 guests", "switch-5-plain")),
    ).toMatchObject({
      school: "vlans",
      reason: expect.stringMatching(/5 groups would need as many routers/),
    });
    expect(school(survey("home", "1 PC, 1 television", "switch-8-poe")).school).toBe("vlans");
    expect(school(survey("home", "1 PC, 1 switch", "switch-5-plain")).school).toBe("vlans");
    expect(school(LOCKKEEPERS_HOUSE).school).toBe("vlans");
  });

  test("the installer's choice holds, the survey's is still said; safety stays apart in every case", () => {
    expect(school(survey("home", "1 PC", "switch-5-plain"), { separation: "vlans" })).toMatchObject({
      school: "vlans",
      overridden: true,
      fits: "routers",
      reason: expect.stringMatching(/^Chosen by you/),
    });
    for (const separation of ["auto", "vlans", "routers", "gap"] as const)
      expect(school(BRAMBLEWICK, { separation }).reason).toMatch(
        /safety network is recorded on gear of its own and never linked/,
      );
  });
});

describe("names by the site's pattern", () => {
  const empty = (pattern: string): Plan =>
    surveyPlan({ name: "Fennel annexe", kind: "office", rooms: [], gear: [] }, { namePattern: pattern });

  test.each([
    ["{place}-{kind}-{n}", "imaging-suite-x-ray-panel-1"],
    ["{kind}{n}", "x-ray-panel-1"],
    ["{segment}.{kind}", "imaging-x-ray-panel-1"],
    ["{n}-{place}", "1-imaging-suite"],
  ])("%s", (pattern, wanted) => {
    expect(new HostNames(empty(pattern)).next("Imaging suite", "x-ray panel", "Imaging")).toBe(wanted);
  });

  test("any pattern, place and kind give host names, none twice, none longer than 63", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(CONVENTIONS.namePattern, "{kind}{n}", "{place}{place}{place}-{kind}", "{n}"),
        fc.array(
          fc.tuple(fc.string({ maxLength: 60 }), fc.constantFrom(...CATALOGUE.map((kind) => kind.word))),
          { maxLength: 20 },
        ),
        (pattern, things) => {
          const names = new HostNames(empty(pattern));
          const made = things.map(([place, kind]) => names.next(place, kind, "Staff"));
          expect(new Set(made).size).toBe(made.length);
          expect(made.filter((name) => !isHostName(name))).toEqual([]);
        },
      ),
    );
  });
});
