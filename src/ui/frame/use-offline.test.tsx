import { act, cleanup, render } from "@testing-library/react";
import { CACHES, planOf, runbookPageOf } from "@/service-worker/kept";
import { useKeepOffline, useOffline } from "./use-offline";

const SITE = "3c851736-e759-726c-822e-ada23d0378d8";
const PAGE = runbookPageOf(SITE);
const PLAN = planOf(SITE);

/** What the server answers by path; null where it does not. */
let server: (path: string) => { readonly status: number; readonly redirected: boolean } | null;
let asked: string[];
let kept: Map<string, unknown>;
let isFull: boolean;
const answers = { status: 200, redirected: false };

const cacheNamed = (name: string) => ({
  match: (path: string) => Promise.resolve(kept.get(`${name} ${path}`)),
  put: (path: string, answer: unknown) => {
    if (isFull) return Promise.reject(new DOMException("full", "QuotaExceededError"));
    kept.set(`${name} ${path}`, answer);
    return Promise.resolve();
  },
});
const workers = {
  controller: null as object | null,
  register: () => Promise.resolve(),
  ready: Promise.resolve(),
};

beforeEach(() => {
  [server, asked, kept, isFull] = [() => answers, [], new Map(), false];
  workers.controller = null;
  Object.assign(window, { caches: { open: (name: string) => Promise.resolve(cacheNamed(name)) } });
  Object.defineProperty(navigator, "serviceWorker", { value: workers, configurable: true });
  global.fetch = ((path: string) => {
    asked.push(path);
    const answer = server(path);
    return answer === null ? Promise.reject(new TypeError("no connection")) : Promise.resolve(answer);
  }) as typeof fetch;
  useOffline.setState({ state: "unknown" });
  jest.useFakeTimers();
});
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

/** A page whose plan is there at once, unless it is said to be on its way. */
function Page({ revision = 4 }: { readonly revision?: number | "on its way" }) {
  useKeepOffline(SITE, revision === "on its way" ? undefined : revision);
  return null;
}
/** By then what is done once the site is open has been done. */
const settled = (ms = 2000) => act(() => jest.advanceTimersByTimeAsync(ms));
const state = () => useOffline.getState().state;

test("a first visit keeps the runbook's page and the plan; only then is it called ready", async () => {
  render(<Page />);
  expect(state()).toBe("unknown");
  await settled();
  expect([state(), [...kept.keys()]]).toEqual([
    "ready",
    [`${CACHES.pages} ${PAGE}`, `${CACHES.plans} ${PLAN}`],
  ]);
});

test("while the plan is on its way, and until the page stands, nothing else is asked for", async () => {
  const { rerender } = render(<Page revision="on its way" />);
  await settled(60_000);
  window.dispatchEvent(new Event("online"));
  await settled(60_000);
  expect(asked).toEqual([]);
  rerender(<Page />);
  await settled(1_900);
  expect(asked).toEqual([]);
  await settled();
  expect(asked).toEqual([PAGE, PLAN]);
});

test("what the server refuses is not kept, and nothing is called ready", async () => {
  server = (path) => (path === PLAN ? { ...answers, status: 401 } : answers);
  render(<Page />);
  await settled();
  expect([state(), kept.has(`${CACHES.plans} ${PLAN}`)]).toEqual(["unknown", false]);
});

test("a browser without room says so", async () => {
  isFull = true;
  render(<Page />);
  await settled();
  expect(state()).toBe("noRoom");
});

test("opened anew offline it is ready by what lies here; what is missing comes with the next", async () => {
  server = () => null;
  kept.set(`${CACHES.pages} ${PAGE}`, answers);
  const { unmount } = render(<Page />);
  await settled();
  expect(state()).toBe("unknown");
  server = () => answers;
  window.dispatchEvent(new Event("online"));
  await settled();
  expect(state()).toBe("ready");
  unmount();
  useOffline.setState({ state: "unknown" });
  server = () => null;
  render(<Page />);
  await settled();
  expect(state()).toBe("ready");
});

test("a plan that was read through the worker is not asked for a second time until it changes", async () => {
  workers.controller = {};
  kept.set(`${CACHES.plans} ${PLAN}`, answers);
  const { rerender } = render(<Page revision={4} />);
  await settled(60_000);
  expect(asked).toEqual([PAGE]);
  rerender(<Page revision={5} />);
  await settled(14_000);
  rerender(<Page revision={6} />);
  await settled(14_000);
  expect(asked).toEqual([PAGE]);
  await settled(2_000);
  expect(asked).toEqual([PAGE, PLAN]);
  server = () => ({ ...answers, status: 404 });
  rerender(<Page revision={7} />);
  await settled(16_000);
  expect(state()).toBe("unknown");
});
