import { StorageError } from "@/application/storage-error";
import { stateRoute } from "@/http/route";
import { ask, closeStores } from "../../tests/support/handlers";

// What watches over the application asks it without a session, and learns whether, and nothing else.

afterAll(closeStores);

const look = async (
  handler: (request: Request) => Promise<Response>,
  headers: Record<string, string> = {},
) => {
  const answer = await ask(handler, { method: "GET", headers });
  return [answer.status, await answer.json()] as const;
};
const OK = [200, { ok: true }] as const;

test("it says that it is alive, and ready when the database answers", async () => {
  const [alive, ready] = await Promise.all([import("@/app/healthz/route"), import("@/app/readyz/route")]);
  expect(await look(alive.GET)).toEqual(OK);
  expect(await look(ready.GET)).toEqual(OK);
});

test("whoever names another host learns nothing", async () => {
  const { GET } = await import("@/app/readyz/route");
  const [status] = await look(GET, { host: "elsewhere.example" });
  expect(status).toBe(421);
});

test("a database that is away, or late, is not ready, and says so in a sentence", async () => {
  const away = stateRoute("GET /readyz", () => Promise.reject(new StorageError("unreachable", "gone")));
  const slow = stateRoute("GET /readyz", () => new Promise(() => undefined), 10);
  for (const handler of [away, slow])
    expect(await look(handler)).toEqual([503, expect.objectContaining({ code: "database-unreachable" })]);
});

test("a bug is no state: it is not told as one", async () => {
  const handler = stateRoute("GET /readyz", () => Promise.reject(new TypeError("a bug")));
  await expect(ask(handler, { method: "GET" })).rejects.toThrow(TypeError);
});
