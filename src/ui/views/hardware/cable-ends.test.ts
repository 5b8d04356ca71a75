import { fennelStreet } from "../../../../demo/fennel-street";
import { must } from "@/core/kernel";
import { applyChanges, PlanEdits, PlanIndex } from "@/core/plan";
import { BOX, drawCables, facingSides, tapePlace } from "./cable-ends";

const plan = fennelStreet();
const index = PlanIndex.of(plan);
const link = must([...plan.link.values()][0], "a cable");
const [a, b] = [must(plan.port.get(link.a), "a port"), must(plan.port.get(link.b), "a port")];
const places = Object.fromEntries([...plan.device.keys()].map((id, i) => [id, { x: i * 300, y: 0 }]));
const at = (device: string) => must(places[device], "a place");

test("a cable is drawn from the box its way begins at, whichever end that is", () => {
  const way = [
    { x: at(b.device).x + 10, y: BOX.height },
    { x: at(b.device).x + 10, y: 90 },
    { x: at(a.device).x + 10, y: 90 },
    { x: at(a.device).x + 10, y: BOX.height },
  ];
  const laid = (route: typeof way) => ({
    places,
    routes: { [link.id]: route },
    shared: {},
    width: 0,
    height: 0,
  });
  const first = (route: typeof way) => drawCables(index, laid(route)).find((cable) => cable.id === link.id);
  expect(first(way)).toMatchObject({ first: { id: b.id }, last: { id: a.id }, route: way });
  expect(first([...way].reverse())).toMatchObject({ first: { id: a.id }, last: { id: b.id } });
});

test("without a layout, or once a person has moved one of its boxes, a cable finds its own way", () => {
  expect(drawCables(index, null).map((cable) => cable.route)).toEqual(
    [...plan.link.values()].map(() => null),
  );
  const edits = new PlanEdits(plan);
  edits.patch("device", a.device, { position: { x: 5, y: 5 } });
  const moved = applyChanges(plan, edits.changes());
  const cables = drawCables(PlanIndex.of(must(moved.ok ? moved.value : null, "applies")), {
    places,
    routes: {
      [link.id]: [
        { x: 0, y: 0 },
        { x: 0, y: 9 },
      ],
    },
    shared: {},
    width: 0,
    height: 0,
  });
  expect(cables.find((cable) => cable.id === link.id)?.route).toBeNull();
});

test("a cable leaves by the side that faces where it goes", () => {
  const sides = (x: number, y: number) => facingSides({ x: 0, y: 0 }, { x, y });
  expect(sides(400, 100)).toEqual({ out: "right", into: "left" });
  expect(sides(-400, 100)).toEqual({ out: "left", into: "right" });
  expect(sides(100, 200)).toEqual({ out: "bottom", into: "top" });
  expect(sides(0, -200)).toEqual({ out: "top", into: "bottom" });
});

test("the tape stands in the middle of the longest piece, along it", () => {
  expect(
    tapePlace([
      { x: 0, y: 0 },
      { x: 0, y: 40 },
      { x: 100, y: 40 },
      { x: 100, y: 60 },
    ]),
  ).toEqual({ x: 50, y: 40, upright: false });
  expect(
    tapePlace([
      { x: 0, y: 0 },
      { x: 0, y: 90 },
    ]),
  ).toEqual({ x: 0, y: 45, upright: true });
});
