import { expect, test } from "@playwright/test";
import { readdirSync, readFileSync } from "node:fs";
import { request as httpRequest } from "node:http";
import { join } from "node:path";

const ID = "01900000-0000-7000-8000-000000000000";

/** Every route and method there is, read off the sources. */
function routes(folder = "src/app/api"): { path: string; method: string }[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return routes(path);
    if (entry.name !== "route.ts") return [];
    const address = folder.replace("src/app", "").replaceAll("[site]", ID);
    return [...readFileSync(path, "utf8").matchAll(/export const (\w+) =/g)].map((m) => ({
      path: address,
      method: String(m[1]),
    }));
  });
}

const ROUTES = routes();

test("the walk found the routes", () => expect(ROUTES.length).toBeGreaterThan(7));

test("every route refuses a stranger, another site's page and another host's name", async ({
  request,
  playwright,
  baseURL,
}) => {
  const address = String(baseURL);
  const stranger = await playwright.request.newContext({
    baseURL: address,
    storageState: { cookies: [], origins: [] },
  });
  for (const { path, method } of ROUTES.filter(
    (route) => !/^\/api\/(enter|sign-in|passkey)$/.test(route.path) || route.method !== "POST",
  )) {
    const refused = await stranger.fetch(path, { method, headers: { origin: address } });
    expect([path, method, refused.status()]).toEqual([path, method, 401]);
    const foreign = await request.fetch(path, { method, headers: { origin: "http://elsewhere.example" } });
    expect([path, method, foreign.status()]).toEqual([path, method, 403]);
    if (method !== "GET")
      expect([path, (await request.fetch(path, { method })).status()]).toEqual([path, 403]);
  }
  // What watches over the application has no session: it learns whether, and nothing else.
  for (const path of ["/healthz", "/readyz"]) {
    const state = await stranger.fetch(path);
    expect([path, state.status(), await state.json()]).toEqual([path, 200, { ok: true }]);
  }
  // What was counted is told on this machine, and not through a proxy.
  const counted = await stranger.fetch("/metrics");
  expect([counted.status(), await counted.text()]).toEqual([
    200,
    expect.stringMatching(/^dianome_answers_total\{route="\/api\/sites",method="GET",status="401"\} \d+$/m),
  ]);
  expect((await stranger.fetch("/metrics", { headers: { "x-forwarded-for": "192.0.2.1" } })).status()).toBe(
    404,
  );
  const wrongHost = await new Promise<number>((resolve, reject) => {
    const call = httpRequest(`${address}/api/sites`, { headers: { host: "rebound.example" } }, (answer) => {
      answer.resume();
      resolve(answer.statusCode ?? 0);
    });
    call.on("error", reject);
    call.end();
  });
  expect(wrongHost).toBe(421);
  await stranger.dispose();
});

test("scripts run from our files or with the answer's nonce; a page of before has another", async ({
  request,
}) => {
  const nonces = new Set<string>();
  for (const path of [
    "/enter",
    "/enter",
    "/",
    "/people",
    "/nowhere",
    "/_next/static/nothing.js",
    "/healthz",
  ]) {
    const answer = await request.get(path);
    const policy = answer.headers()["content-security-policy"] ?? "";
    const scripts = /script-src ([^;]*)/.exec(policy)?.[1] ?? "";
    expect([path, scripts]).toEqual([path, expect.stringMatching(/^'self' 'nonce-[\w+/]{24}'$/)]);
    const nonce = /nonce-([^']*)/.exec(scripts)?.[1] ?? "";
    nonces.add(nonce);
    const inline = [...(await answer.text()).matchAll(/<script(?![^>]*\bsrc=)([^>]*)>/g)];
    if (path === "/enter") expect(inline.length).toBeGreaterThan(0);
    for (const [, attributes] of inline)
      expect([path, attributes]).toEqual([path, expect.stringContaining(` nonce="${nonce}"`)]);
  }
  expect(nonces.size).toBe(7);
});

test("pages lead a stranger to the door", async ({ browser, baseURL }) => {
  const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const page = await context.newPage();
  for (const path of ["/", `/sites/${ID}/segments`]) {
    await page.goto(`${baseURL}${path}`);
    await expect(page).toHaveURL(/\/enter$/);
  }
  await context.close();
});

test("bodies are bounded and checked, and say what is wrong", async ({ request, baseURL }) => {
  const headers = { origin: String(baseURL), "content-type": "application/json" };
  const bad = async (path: string, data: unknown) => {
    const answer = await request.post(path, {
      headers,
      data: typeof data === "string" ? data : JSON.stringify(data),
    });
    return {
      status: answer.status(),
      sentence: String(((await answer.json()) as { sentence: string }).sentence),
    };
  };
  expect(await bad("/api/sites", "{")).toMatchObject({ status: 400 });
  expect(
    await bad("/api/sites", { by: "name", id: ID, name: "", kind: "office", timeZone: "UTC" }),
  ).toMatchObject({ status: 400, sentence: expect.stringContaining("can't be empty") });
  expect(
    await bad("/api/sites", {
      by: "name",
      id: "1; DROP TABLE site",
      name: "x",
      kind: "office",
      timeZone: "UTC",
    }),
  ).toMatchObject({ status: 400, sentence: expect.stringContaining("UUID") });
  const site = "01900000-0000-7000-8000-00000000b0d1";
  const begin = { by: "name", id: site, name: "Bodies", kind: "office", timeZone: "UTC" };
  expect(await bad("/api/sites", begin)).toMatchObject({ status: 200 });
  expect(await bad(`/api/sites/${site}/undo`, `"${"x".repeat(1_100_000)}"`)).toMatchObject({ status: 413 });
  expect(
    await bad(`/api/sites/${site}/batches`, {
      revision: 0,
      batch: { id: ID, planner: "x", summary: "", args: null, changes: [{ kind: "gadget" }] },
    }),
  ).toMatchObject({ status: 400 });
  expect(await bad(`/api/sites/${ID}/undo`, { id: ID })).toMatchObject({ status: 404 });
});
