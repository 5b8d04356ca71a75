import { loadPlan } from "./plan-worker";

const mockTold: unknown[] = [];
jest.mock("comlink", () => ({
  transfer: (value: object, moved: readonly unknown[]) => ({ ...value, moved }),
  wrap: () => ({
    load: (answer: unknown) => {
      mockTold.push(answer);
      return Promise.resolve({ ok: false, error: { status: 404, sentence: "It is gone." } });
    },
  }),
}));

test("the plan is asked for while its worker starts; the worker gets the answer whatever it is", async () => {
  const done: string[] = [];
  class SlowWorker {
    constructor() {
      done.push("a worker starts");
    }
  }
  const body = new ArrayBuffer(8);
  const answer = {
    ok: false,
    status: 404,
    headers: { get: (name: string) => (name === "x-steps" ? "the steps" : null) },
    arrayBuffer: () => Promise.resolve(body),
  };
  Object.assign(global, {
    Worker: SlowWorker,
    fetch: (path: string) => {
      done.push(path);
      return Promise.resolve(answer);
    },
  });
  const loading = loadPlan("the-site");
  // Both are under way before anything else happens.
  expect(done).toEqual(["a worker starts", "/api/sites/the-site/plan"]);
  expect(await loading).toEqual({ ok: false, error: { status: 404, sentence: "It is gone." } });
  expect(mockTold).toEqual([{ isOk: false, status: 404, steps: "the steps", body, moved: [body] }]);
});

test("without an answer it says so as the browser does", async () => {
  Object.assign(global, { fetch: () => Promise.reject(new TypeError("no connection")) });
  await expect(loadPlan("the-site")).rejects.toThrow(TypeError);
});
