import { lockkeepersHouse } from "../../../demo/lockkeepers-house";
import { must } from "../kernel";
import { applyChanges, PlanEdits, PlanIndex, type Line, type Plan } from "../plan";
import { asClient, probe } from "../probe";
import { FailureStudy } from ".";

const named = (plan: Plan, kind: "line" | "segment" | "host", name: string): string =>
  must([...plan[kind].values()].find((named) => named.name === name)?.id, name);
const HOME = lockkeepersHouse();
const FIBRE = named(HOME, "line", "Fibre line");
const MOBILE = named(HOME, "line", "Mobile line");

const withLines = (fibre: Partial<Line>, mobile: Partial<Line> = {}): PlanIndex => {
  const edits = new PlanEdits(HOME);
  edits.patch("line", FIBRE, fibre);
  edits.patch("line", MOBILE, mobile);
  const applied = applyChanges(HOME, edits.changes());
  return PlanIndex.of(must(applied.ok ? applied.value : null, "it applies"));
};
/** The names of those who have no internet when a line fails. */
const without = (index: PlanIndex, line: string): string[] =>
  new FailureStudy(index)
    .fail([{ what: "line", id: line }])
    .noInternet.map((id) => index.plan.host.get(id)?.name ?? "")
    .sort();
const all = without(withLines({ providerBox: "bridges", watch: watching("link") }), FIBRE);

function watching(by: Line["watch"]["by"]): Line["watch"] {
  return { ...must(HOME.line.get(FIBRE), "the line").watch, by };
}

test("a loss that is noticed costs nobody the internet; one that is not costs everybody", () => {
  expect(without(withLines({}), FIBRE)).toEqual([]);
  expect(without(withLines({}), MOBILE)).toEqual([]);
  expect(all.length).toBeGreaterThan(4);
  expect(without(withLines({ watch: watching("link") }), FIBRE)).toEqual([]);
  expect(without(withLines({ watch: { ...watching("target"), targets: [] } }), FIBRE)).toEqual(all);
});

test("what is pinned and stays loses it with its line, and only that; with the other line it does not", () => {
  const pinned = withLines({
    pins: [{ what: "segment", segment: named(HOME, "segment", "Studio"), orElse: "stays" }],
  });
  expect(without(pinned, FIBRE)).toEqual(["kiln-controller", "studio-laptop"]);
  expect(without(pinned, MOBILE)).toEqual([]);
  const next = withLines({
    pins: [{ what: "segment", segment: named(HOME, "segment", "Studio"), orElse: "next" }],
  });
  expect(without(next, FIBRE)).toEqual([]);
});

test("of lines that share, one that dies unnoticed costs everybody, one that is noticed nobody", () => {
  expect(without(withLines({ share: 60 }, { share: 40, providerBox: "none" }), MOBILE)).toEqual([]);
  expect(without(withLines({ share: 60 }, { share: 40 }), MOBILE)).toEqual(all);
});

describe("a probe goes out by the line that carries its sender", () => {
  const out = (index: PlanIndex, host: string) =>
    probe(
      index,
      asClient({ at: "host", host: named(HOME, "host", host) }, { to: "internet", service: null }),
      () => MOBILE,
    );
  const says = (index: PlanIndex, host: string) => {
    const { steps, cause } = out(index, host);
    return [steps.find(({ place }) => place === "route")?.why ?? null, cause?.sentence ?? null];
  };

  test("the first in the order, the one it is pinned to, or the one with the greatest share", () => {
    expect(says(withLines({}), "study-pc")[0]).toBe(
      "Nothing inside holds it; this is the first line in the order.",
    );
    const pins = [{ what: "segment", segment: named(HOME, "segment", "Household"), orElse: "next" }] as const;
    expect(says(withLines({}, { pins: [...pins] }), "study-pc")[0]).toBe(
      "Nothing inside holds it; it is pinned to Mobile line.",
    );
    expect(says(withLines({ share: 30 }, { share: 70 }), "study-pc")[0]).toBe(
      "Nothing inside holds it; lines share what goes out: 70 % by Mobile line, 30 % by Fibre line.",
    );
  });

  test("with the port of its line off it goes by the next, or nowhere when it may not", () => {
    const off = (pins: Line["pins"]) => {
      const index = withLines({ pins });
      const leg = must(
        [...index.plan.interface.values()].find(({ line }) => line === FIBRE),
        "its leg",
      );
      const edits = new PlanEdits(index.plan);
      edits.patch("port", must(leg.port, "its port"), { enabled: false });
      const applied = applyChanges(index.plan, edits.changes());
      return PlanIndex.of(must(applied.ok ? applied.value : null, "it applies"));
    };
    expect(says(off([]), "study-pc")).toEqual(["Nothing inside holds it; Fibre line does not work.", null]);
    const pin = { what: "segment", segment: named(HOME, "segment", "Household"), orElse: "stays" } as const;
    expect(says(off([pin]), "study-pc")[1]).toBe(
      "Fibre line does not work, and what is pinned to it may not go out by another line.",
    );
  });
});
