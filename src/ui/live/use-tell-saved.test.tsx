import { act, renderHook } from "@testing-library/react";
import { SAVED } from "../kit/download";
import { useTellSaved } from "./use-tell-saved";

const mockAsked: unknown[][] = [];
let mockStatus = 200;
jest.mock("@/ui/plan-store/api", () => ({
  call: (...asked: unknown[]) => {
    mockAsked.push(asked);
    return Promise.resolve(mockStatus === 200 ? { ok: true, value: {} } : { ok: false, status: mockStatus });
  },
}));

const save = (file: string) =>
  act(async () => {
    window.dispatchEvent(new CustomEvent(SAVED, { detail: file }));
    await Promise.resolve();
  });
const files = () => mockAsked.map(([, , body]) => (body as { file: string }).file);

test("each file that is saved is told once; without a connection it is told when there is one", async () => {
  const { unmount } = renderHook(() => useTellSaved("s"));
  await save("ports.csv");
  expect(mockAsked).toEqual([["/api/sites/s/exports", "POST", { file: "ports.csv" }]]);
  mockStatus = 0;
  await save("hosts");
  mockStatus = 200;
  await act(async () => {
    window.dispatchEvent(new Event("online"));
    await Promise.resolve();
  });
  expect(files()).toEqual(["ports.csv", "hosts", "hosts"]);
  // What is refused is not told again and again, and nobody listens any more once the site is left.
  mockStatus = 403;
  await save("rules.csv");
  mockStatus = 200;
  await act(async () => {
    window.dispatchEvent(new Event("online"));
    await Promise.resolve();
  });
  unmount();
  await save("vlans.csv");
  expect(files()).toEqual(["ports.csv", "hosts", "hosts", "rules.csv"]);
});
