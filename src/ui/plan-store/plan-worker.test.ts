import { fennelStreet } from "../../../demo/fennel-street";
import { encodePlan } from "@/core/formats";
import { PlanIndex } from "@/core/plan";
import { loadPlan } from "./plan-worker";

const mockTold: unknown[] = [];
const mockWorker: { judge: () => Promise<unknown> } = { judge: () => Promise.resolve("what it found") };
jest.mock("comlink", () => ({
  transfer: (value: object, moved: readonly unknown[]) => ({ value, moved }),
  wrap: () => ({
    judge: (...told: unknown[]) => {
      mockTold.push(...told);
      return mockWorker.judge();
    },
  }),
}));

const { plan } = PlanIndex.of(fennelStreet());
const FILE = encodePlan(plan);
const steps = { undo: "Rename a segment", redo: null, undoIsImport: false };

const done: string[] = [];
class SlowWorker {
  constructor() {
    done.push("a worker starts");
  }
}
/** The server answers with this from now on. */
function serverAnswers(status: number, answer: unknown, head: string | null = null): ArrayBuffer {
  const body = new TextEncoder().encode(JSON.stringify(answer)).buffer;
  Object.assign(global, {
    Worker: SlowWorker,
    fetch: (path: string) => {
      done.push(path);
      const headers = { get: (name: string) => (name === "x-steps" ? head : null) };
      return Promise.resolve({
        ok: status === 200,
        status,
        headers,
        arrayBuffer: () => Promise.resolve(body),
      });
    },
  });
  return body;
}
beforeEach(() => {
  mockTold.length = 0;
  mockWorker.judge = () => Promise.resolve("what it found");
});
beforeAll(() => jest.useFakeTimers({ now: new Date("2026-12-02T10:00:00Z") }));
afterAll(() => jest.useRealTimers());

test("the plan is asked for while its worker starts; page and worker read the same answer", async () => {
  const body = serverAnswers(200, { revision: 7, plan: FILE }, encodeURIComponent(JSON.stringify(steps)));
  const loading = loadPlan("the-site");
  // Both are under way before anything else happens.
  expect(done).toEqual(["a worker starts", "/api/sites/the-site/plan"]);
  const loaded = await loading;
  if (!loaded.ok) throw new Error(loaded.error.sentence);
  expect(loaded.value).toMatchObject({ revision: 7, today: "2026-12-02", steps });
  expect(loaded.value.plan).toEqual(plan);
  // What is handed over is gone here: it is a copy.
  const [handed, today] = mockTold as [{ value: ArrayBuffer; moved: readonly unknown[] }, string];
  expect([handed.moved[0] === handed.value, handed.value === body, today]).toEqual([
    true,
    false,
    "2026-12-02",
  ]);
  expect(new Uint8Array(handed.value)).toEqual(new Uint8Array(body));
  expect(await loaded.value.findings).toBe("what it found");
});

test("without steps in its head there is nothing to undo; a worker that breaks off found nothing", async () => {
  serverAnswers(200, { revision: 0, plan: FILE });
  mockWorker.judge = () => Promise.reject(new Error("out of memory"));
  const loaded = await loadPlan("the-site");
  if (!loaded.ok) throw new Error(loaded.error.sentence);
  expect(loaded.value.steps).toEqual({ undo: null, redo: null, undoIsImport: false });
  expect(await loaded.value.findings).toBeNull();
});

test("where there is no plan, it says why, and nothing is judged", async () => {
  serverAnswers(404, { code: "no-such-site", sentence: "It is gone." });
  expect(await loadPlan("the-site")).toEqual({ ok: false, error: { status: 404, sentence: "It is gone." } });
  serverAnswers(502, {});
  const sentence = "The plan could not be loaded.";
  expect(await loadPlan("the-site")).toEqual({ ok: false, error: { status: 502, sentence } });
  expect(mockTold).toEqual([]);
});

test("a plan that can't be read says where", async () => {
  serverAnswers(200, { revision: 7, plan: Object.assign({}, FILE, { vlans: [{ id: "x" }] }) });
  const loaded = await loadPlan("the-site");
  expect(loaded).toMatchObject({ ok: false, error: { status: 500 } });
  expect(loaded.ok ? "" : loaded.error.sentence).toMatch(/vlans/);
});

test("without an answer it says so as the browser does", async () => {
  Object.assign(global, { fetch: () => Promise.reject(new TypeError("no connection")) });
  await expect(loadPlan("the-site")).rejects.toThrow(TypeError);
});
