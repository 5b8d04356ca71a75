import { act, render, screen } from "@testing-library/react";
import { fennelStreet } from "../../../demo/fennel-street";
import { scene } from "../../../tests/support/plan-scene";
import { HistorySection } from "./HistorySection";

type Support = typeof import("../../../tests/support/plan-scene");
jest.mock(
  "@/ui/plan-store/use-plan",
  () => jest.requireActual<Support>("../../../tests/support/plan-scene").scene.planModule,
);
const mockAnswers: ((answer: object) => void)[] = [];
const mockAsked: string[] = [];
jest.mock("@/ui/plan-store/api", () => ({
  call: (path: string) => {
    mockAsked.push(path);
    return new Promise((answer) => mockAnswers.push(answer));
  },
}));
jest.mock("./WhySo", () => ({ WhySo: ({ about }: { about: string[] }) => <i>{about.join(" ")}</i> }));

const line = (id: number) => ({
  ...{ id: `${id}`, revision: id, authorName: "Marek", summary: `Change ${id}` },
  madeAt: "2026-11-03T14:05:00.000Z",
});
const answer = (value: object) => act(async () => Promise.resolve(mockAnswers.shift()?.(value)));
const history = () => screen.queryAllByRole("listitem").map(({ textContent }) => textContent);
const AWAY = { ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } };

beforeEach(() => {
  mockAnswers.length = 0;
  mockAsked.length = 0;
  scene.show(fennelStreet());
});

test("the last five of the whole plan are told, by whom and when, once the server tells them", async () => {
  render(<HistorySection />);
  expect(screen.queryByRole("heading", { name: "History" })).toBeNull();
  await answer({ ok: true, value: [7, 6, 5, 4, 3, 2].map(line) });
  expect(screen.getByRole("heading", { name: "History" })).toBeTruthy();
  expect(history()).toEqual([7, 6, 5, 4, 3].map((n) => `3 Nov 14:05Marek: Change ${n}`));
  expect(mockAsked).toEqual([expect.not.stringContaining("about")]);
});

test("what was told of one thing is not shown of the next, even where nobody answers", async () => {
  const { rerender, container } = render(<HistorySection about="one" also={["its cable"]} />);
  await answer({ ok: true, value: [line(3)] });
  expect(history()).toEqual(["3 Nov 14:05Marek: Change 3"]);
  expect(container.querySelector("i")?.textContent).toBe("one its cable");
  rerender(<HistorySection about="two" />);
  expect(history()).toEqual([]);
  await answer(AWAY);
  expect(history()).toEqual([]);
  expect(mockAsked.map((path) => path.slice(path.indexOf("&about")))).toEqual(["&about=one", "&about=two"]);
});

test("an answer that comes late does not stand under what is selected by then", async () => {
  const { rerender } = render(<HistorySection about="one" />);
  rerender(<HistorySection about="two" />);
  const [first, second] = mockAnswers.splice(0);
  await act(async () => Promise.resolve(second?.({ ok: true, value: [line(2)] })));
  await act(async () => Promise.resolve(first?.({ ok: true, value: [line(1)] })));
  expect(history()).toEqual(["3 Nov 14:05Marek: Change 2"]);
});
