import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { scene } from "./plan-scene";

// What a margin is tested in: a plan that it edits, nobody at the server, what it said and where it led kept.
// To be imported before the margin itself.

type Support = typeof import("./plan-scene");
jest.mock("@/ui/plan-store/use-plan", () => jest.requireActual<Support>("./plan-scene").scene.planModule);
jest.mock("@/ui/frame/use-ui", () => jest.requireActual<Support>("./plan-scene").scene.uiModule);
jest.mock("@/ui/plan-store/api", () => ({
  call: () => Promise.resolve({ ok: false, status: 0, refused: { code: "no-answer", sentence: "Away." } }),
}));
const mockWent: string[] = [];
jest.mock("@/ui/frame/go-to", () => ({
  ...jest.requireActual<object>("@/ui/frame/go-to"),
  useGoTo: () => ({
    view: (view: string) => mockWent.push(view),
    entity: ({ id }: { id: string }) => mockWent.push(id),
  }),
}));
const mockToasts: string[] = [];
jest.mock("sonner", () => {
  const say = (text: string) => mockToasts.push(text);
  return { toast: Object.assign(say, { error: say }) };
});
beforeEach(() => {
  mockWent.length = 0;
  mockToasts.length = 0;
});

/** The views and things that somebody was led to. */
export const went: readonly string[] = mockWent;
/** What was said beside the margin. */
export const toasts: readonly string[] = mockToasts;

/** A field of the margin by its label. */
export const field = (label: string): HTMLInputElement =>
  screen.getByLabelText<HTMLInputElement>(label, { exact: true });

/** Writes into a field in place of what stands there, and presses Enter. */
export async function write(label: string, text: string): Promise<void> {
  await userEvent.clear(field(label));
  await userEvent.type(field(label), `${text}{Enter}`);
}

/** What stands beside a name among the facts. */
export const fact = (name: string): string => screen.getByText(name).nextElementSibling?.textContent ?? "";

export { scene };
