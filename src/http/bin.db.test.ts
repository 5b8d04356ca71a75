import { v7 } from "uuid";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { encodePlan } from "@/core/formats";
import { ask, closeStores, cookieOf, enter } from "../../tests/support/handlers";

// Deleting and bringing back by the routes, on the real database.

afterAll(closeStores);

test("a deleted site answers nobody until it is back; the bin is asked one of two things", async () => {
  const cookie = cookieOf(await enter("Ruth"));
  const [sites, one, plan, bin] = await Promise.all([
    import("@/app/api/sites/route"),
    import("@/app/api/sites/[site]/route"),
    import("@/app/api/sites/[site]/plan/route"),
    import("@/app/api/bin/route"),
  ]);
  const site = v7();
  const params = { site };
  const file = encodePlan(lockkeepersHouse());
  const made = { by: "file", id: site, batch: v7(), file };
  expect((await ask(sites.POST, { method: "POST", body: made, cookie })).status).toBe(200);
  const opens = async () => (await ask(plan.GET, { method: "GET", params, cookie })).status;
  const act = async (body: unknown) => {
    const answer = await ask(bin.POST, { method: "POST", body, cookie });
    return [answer.status, ((await answer.json()) as { code?: string }).code];
  };
  expect((await ask(one.DELETE, { method: "DELETE", params, cookie })).status).toBe(200);
  expect(await opens()).toBe(404);
  expect((await ask(sites.POST, { method: "POST", body: made, cookie })).status).toBe(409);
  for (const wrong of [{ site, do: "burn" }, { site: "x", do: "forget" }, { do: "forget" }, null])
    expect(await act(wrong)).toEqual([400, "bad-request"]);
  expect(await act({ site, do: "bringBack" })).toEqual([200, undefined]);
  expect(await opens()).toBe(200);
  expect(await act({ site, do: "forget" })).toEqual([404, "not-in-bin"]);
});
