import { v7 } from "uuid";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { lockkeepersHouse } from "../../demo/lockkeepers-house";
import { ROLES, type Role } from "@/application/roles";
import { encodePlan } from "@/core/formats";
import { ACCESS, type Needs } from "./access";
import type { LogAnswer, PeopleAnswer, SiteAnswer } from "./contracts/answers";
import { newAccount, signIn } from "../../tests/support/accounts";
import { ask, closeStores, cookieOf, enter, type Handler } from "../../tests/support/handlers";

// Who may use which route: every route, asked by a stranger, by each role and by a member of another customer.

interface Route {
  readonly key: keyof typeof ACCESS;
  readonly method: string;
  readonly handler: Handler;
}
async function routesUnder(folder: string): Promise<Route[]> {
  const found: Route[] = [];
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) found.push(...(await routesUnder(path)));
    if (entry.name !== "route.ts") continue;
    const handlers = (await import(`../../${path}`)) as Record<string, Handler>;
    for (const [, method = "", key = ""] of readFileSync(path, "utf8").matchAll(
      /const (\w+) = \w+\(\s*"([^"]+)"/g,
    )) {
      const handler = handlers[method];
      if (handler !== undefined) found.push({ key: key as Route["key"], method, handler });
    }
  }
  return found;
}

let routes: Route[] = [];
let owner = "";
const site = v7();
const other = v7();
const [customer, elsewhere] = [v7(), v7()];
const members: Record<string, string> = {};
const NAMES = { viewer: "Signe", field: "Frode", editor: "Eirik", owner: "Oddvar" } as const;

const byKey = (key: Route["key"]): Handler => {
  const found = routes.find((route) => route.key === key);
  if (found === undefined) throw new Error(`No route ${key}`);
  return found.handler;
};
async function people(body: object, cookie = owner) {
  const answer = await ask(byKey("POST /api/people"), { method: "POST", body, cookie });
  return { status: answer.status, body: (await answer.json()) as { code?: string; key?: string } };
}
async function read<T>(key: Route["key"], cookie: string): Promise<T> {
  return (await (await ask(byKey(key), { method: "GET", cookie })).json()) as T;
}

beforeAll(async () => {
  routes = await routesUnder("src/app");
  owner = cookieOf(await enter("Ruth"));
  for (const [id, name] of [
    [customer, "Access test, one"],
    [elsewhere, "Access test, two"],
  ])
    expect((await people({ do: "putCustomer", id, name })).status).toBe(200);
  const file = encodePlan(lockkeepersHouse());
  for (const [id, folder] of [
    [site, customer],
    [other, elsewhere],
  ]) {
    const body = { by: "file", id, batch: v7(), file, customer: folder };
    expect((await ask(byKey("POST /api/sites"), { method: "POST", body, cookie: owner })).status).toBe(200);
  }
  for (const role of ROLES)
    members[role] = (await newAccount(NAMES[role], { kind: "site", id: site }, role)).cookie;
  members.elsewhere = (await newAccount("Ylva", { kind: "customer", id: elsewhere }, "owner")).cookie;
  members.nobody = (await newAccount("Njord", null)).cookie;
});
afterAll(closeStores);

const askAs = (route: Route, who: string | null, id = site) =>
  ask(route.handler, {
    method: route.method,
    params: { site: id, photo: v7() },
    // Nothing that any route takes: whoever is let in is told that it has not the form.
    ...(route.method === "POST" ? { body: { "no route": "takes this" } } : {}),
    cookie: who === null ? "" : (members[who] ?? ""),
  });

test("the walk found the routes", () => expect(routes.length).toBe(Object.keys(ACCESS).length));

test("a stranger is let in nowhere but at the door and the looks, and told the same everywhere", async () => {
  const texts = new Set<string>();
  for (const route of routes) {
    if (ACCESS[route.key] === "anybody") continue;
    const answers = [await askAs(route, null), await askAs(route, null, v7())];
    for (const answer of answers) {
      expect([route.key, answer.status]).toEqual([route.key, 401]);
      texts.add(await answer.text());
    }
  }
  expect([...texts]).toEqual(['{"code":"no-session","sentence":"You are not signed in."}']);
});

const OF_SITE = Object.entries(ACCESS).filter(([key]) => key.includes("[site]")) as [Route["key"], Needs][];

test.each(OF_SITE)("%s: %s and above; the others are told so", async (key, needs) => {
  const route = routes.find((route) => route.key === key);
  if (route === undefined) throw new Error(key);
  // The one that takes no body and would do it.
  const rolesAsked = key === "DELETE /api/sites/[site]" ? ROLES.slice(0, 3) : ROLES;
  for (const role of rolesAsked) {
    const answer = await askAs(route, role);
    const body = (await answer.json()) as { code?: string };
    const isAllowed = ROLES.indexOf(role) >= ROLES.indexOf(needs as Role);
    const isBarred = answer.status === 403 && body.code === "not-allowed";
    expect([key, role, isBarred]).toEqual([key, role, !isAllowed]);
  }
});

test.each(OF_SITE)("%s: a site of another customer is as one that never was", async (key) => {
  const route = routes.find((route) => route.key === key);
  if (route === undefined) throw new Error(key);
  for (const who of ["elsewhere", "nobody"]) {
    const [there, nowhere] = [await askAs(route, who), await askAs(route, who, v7())];
    expect([key, there.status]).toEqual([key, 404]);
    expect([nowhere.status, await nowhere.text()]).toEqual([404, await there.text()]);
    expect([...there.headers]).toEqual([...nowhere.headers]);
  }
});

/** Medians of many answers, in milliseconds, asked in turn. */
async function medians(of: readonly (() => Promise<unknown>)[], times: number): Promise<number[]> {
  const took: number[][] = of.map(() => []);
  for (let n = 0; n < times; n += 1)
    for (const [at, work] of of.entries()) {
      const began = performance.now();
      await work();
      took[at]?.push(performance.now() - began);
    }
  return took.map((list) => list.sort((a, b) => a - b)[Math.floor(times / 2)] ?? 0);
}

test("nor does the time of an answer tell: a site of another customer and none, medians of 200", async () => {
  const route = { key: "GET /api/sites/[site]/plan", method: "GET" } as const;
  const plan = { ...route, handler: byKey(route.key) };
  const nowhere = v7();
  const [there, not] = await medians(
    [() => askAs(plan, "elsewhere"), () => askAs(plan, "elsewhere", nowhere)],
    200,
  );
  expect(Math.abs((there ?? 0) - (not ?? 0))).toBeLessThan(2);
});

test("lists hold only what is one's own: sites, people, folders, log, and others' drills", async () => {
  const names = async (who: string) =>
    (await read<SiteAnswer[]>("GET /api/sites", members[who] ?? "")).map(({ id, role }) => [id, role]);
  expect(await names("viewer")).toEqual([[site, "viewer"]]);
  expect(await names("elsewhere")).toEqual([[other, "owner"]]);
  expect(await names("nobody")).toEqual([]);

  const seen = await read<PeopleAnswer>("GET /api/people", members.owner ?? "");
  expect(seen.people.map(({ name, hasAccount, hasFactor }) => [name, hasAccount, hasFactor])).toEqual(
    ["Eirik", "Frode", "Oddvar", "Signe"].map((name) => [name, true, false]),
  );
  expect([seen.customers, seen.sites.map(({ id }) => id)]).toEqual([[], [site]]);
  // The folder that it lies in is another's business.
  expect(seen.sites.map((sitePlace) => sitePlace.customer)).toEqual([null]);
  for (const who of ["editor", "nobody"])
    expect(await read<PeopleAnswer>("GET /api/people", members[who] ?? "")).toMatchObject({
      people: [],
      customers: [],
      sites: [],
      invitations: [],
    });

  const log = await read<LogAnswer>("GET /api/log", members.elsewhere ?? "");
  expect(log.map(({ what, about }) => [what, about])).toEqual([
    ["role-taken", "owner, by an invitation"],
    ["site-made", "Lockkeeper's House"],
    ["customer-made", "Access test, two"],
  ]);
  expect(await read<LogAnswer>("GET /api/log", members.editor ?? "")).toEqual([]);
  const drills = await read<{ people: unknown[] }>("GET /api/drills", members.editor ?? "");
  expect(drills.people).toEqual([]);
});

test("an owner of a site gives roles on it, and nowhere else; nobody gives what they don't own", async () => {
  const nobody = (await signInAgain("Njord")).id;
  const on = { kind: "site", id: site };
  const invited = await people({ do: "invite", person: null, on, role: "viewer" }, members.owner);
  expect([invited.status, invited.body.key]).toEqual([200, expect.stringMatching(/^[\w-]{43}$/)]);
  const refused = async (who: string, body: object) => (await people(body, members[who])).status;
  for (const place of [{ kind: "all" }, { kind: "site", id: other }, { kind: "customer", id: customer }])
    for (const who of ["owner", "editor", "nobody"]) {
      expect(await refused(who, { do: "invite", person: null, on: place, role: "viewer" })).toBe(404);
      expect(
        await refused(who, { do: "grant", person: nobody, on: place, role: "owner" }),
      ).toBeGreaterThanOrEqual(403);
    }
  // Somebody of whom nothing is known here can't be given a role by id, nor be named in an invitation.
  expect(await refused("owner", { do: "grant", person: nobody, on, role: "viewer" })).toBe(404);
  expect(await refused("owner", { do: "invite", person: nobody, on, role: "viewer" })).toBe(404);
  expect(await refused("owner", { do: "takeOut", person: nobody, forgetName: false })).toBe(403);
  expect(await refused("owner", { do: "putCustomer", id: v7(), name: "Mine" })).toBe(403);
  expect(await refused("owner", { do: "moveSite", site, customer: null })).toBe(403);
  expect(await refused("editor", { do: "moveSite", site, customer: null })).toBe(404);
  expect(await refused("elsewhere", { do: "moveSite", site: other, customer })).toBe(403);
  expect(await refused("elsewhere", { do: "removeCustomer", id: customer })).toBe(404);
});

/** Somebody's id, by what the owner of everything sees. */
async function signInAgain(name: string): Promise<{ id: string }> {
  const { people: all } = await read<PeopleAnswer>("GET /api/people", owner);
  const found = all.find((line) => line.name === name);
  if (found === undefined) throw new Error(name);
  return found;
}

test("of several roles the highest counts; one given in a folder reaches its sites as they come", async () => {
  const { cookie, id } = await newAccount("Idunn", { kind: "customer", id: customer }, "viewer");
  const roleOf = async () =>
    (await read<SiteAnswer[]>("GET /api/sites", cookie)).find((siteSummary) => siteSummary.id === site)
      ?.role ?? null;
  expect(await roleOf()).toBe("viewer");
  const on = { kind: "site", id: site };
  await people({ do: "grant", person: id, on, role: "editor" });
  expect(await roleOf()).toBe("editor");
  await people({ do: "grant", person: id, on: { kind: "customer", id: customer }, role: "owner" });
  expect(await roleOf()).toBe("owner");
  await people({ do: "withdraw", person: id, on: { kind: "customer", id: customer } });
  expect(await roleOf()).toBe("editor");
  await people({ do: "withdraw", person: id, on });
  expect(await roleOf()).toBeNull();
  await people({ do: "grant", person: id, on: { kind: "customer", id: elsewhere }, role: "field" });
  await people({ do: "moveSite", site, customer: elsewhere });
  expect(await roleOf()).toBe("field");
  expect((await people({ do: "removeCustomer", id: elsewhere })).body.code).toBe("not-empty");
  await people({ do: "moveSite", site, customer });
  expect(await roleOf()).toBeNull();
});

test("sites are begun where one is an editor; a site in the bin comes back by its owners alone", async () => {
  const begin = async (cookie: string | undefined, folder: string | null) => {
    const body = { by: "name", id: v7(), name: "New", kind: "home", timeZone: "UTC", customer: folder };
    const answer = await ask(byKey("POST /api/sites"), { method: "POST", body, cookie: cookie ?? "" });
    return [answer.status, ((await answer.json()) as { id?: string }).id];
  };
  expect((await begin(members.elsewhere, customer))[0]).toBe(403);
  expect((await begin(members.elsewhere, null))[0]).toBe(403);
  expect((await begin(members.owner, null))[0]).toBe(403);
  const [status, id] = await begin(members.elsewhere, elsewhere);
  expect(status).toBe(200);
  const params = { site: String(id) };
  const remove = byKey("DELETE /api/sites/[site]");
  expect((await ask(remove, { method: "DELETE", params, cookie: members.elsewhere ?? "" })).status).toBe(200);
  const bin = async (who: string) => {
    const body = { site: id, do: "bringBack" };
    const answer = await ask(byKey("POST /api/bin"), { method: "POST", body, cookie: members[who] ?? "" });
    return answer.status;
  };
  expect([await bin("owner"), await bin("nobody"), await bin("elsewhere")]).toEqual([404, 404, 200]);
});

test("who is taken out is out at once, and may leave without a name; the last owner stays", async () => {
  const { cookie, id, name } = await newAccount("Gunnhild", { kind: "site", id: site }, "editor");
  expect((await people({ do: "takeOut", person: id, forgetName: false })).status).toBe(200);
  expect((await ask(byKey("GET /api/sites"), { method: "GET", cookie })).status).toBe(401);
  expect((await signIn({ name, password: "several words do well" })).status).toBe(403);
  expect((await signInAgain(name)).id).toBe(id);
  expect((await people({ do: "takeOut", person: id, forgetName: true })).status).toBe(200);
  await expect(signInAgain(name)).rejects.toThrow(name);
  const log = JSON.stringify(await read<LogAnswer>("GET /api/log", owner));
  expect(log).toContain(`Somebody ${id.slice(-12)}`);
  expect(log).not.toContain(name);
});

test("whoever may no longer invite has no invitation open", async () => {
  const on = { kind: "site", id: site } as const;
  const { cookie, id } = await newAccount("Alvhild", on, "owner");
  const made = await people({ do: "invite", person: null, on, role: "owner" }, cookie);
  await people({ do: "grant", person: id, on, role: "editor" });
  const { POST } = await import("@/app/api/enter/route");
  const body = { key: made.body.key, name: "Nobody's guest", password: "several words do well" };
  expect((await ask(POST, { method: "POST", body })).status).toBe(403);
});

test("the log is changed by nobody: the database itself refuses", async () => {
  const { openDatabase } = await import("@/storage/pool");
  const { sql } = await import("@/storage/sql");
  const database = openDatabase(String(process.env.TEST_DATABASE_URL));
  await expect(database.run(sql`UPDATE deed SET about = 'nothing' LIMIT 1`)).rejects.toThrow(
    /stays in the log/,
  );
  await expect(database.run(sql`DELETE FROM deed LIMIT 1`)).rejects.toThrow(/stays in the log/);
  await database.close();
});

test("two owners of everything who take each other away at once: one stays", async () => {
  const { openDatabase } = await import("@/storage/pool");
  const { sql } = await import("@/storage/sql");
  const database = openDatabase(String(process.env.TEST_DATABASE_URL));
  const others = await database.all(
    sql`SELECT person_id FROM role_grant WHERE scope = 'all' AND role = 'owner'`,
    (row) => String(row.person_id),
  );
  const setAll = async (role: string) => {
    for (const id of others)
      await database.run(sql`UPDATE role_grant SET role = ${role} WHERE scope = 'all' AND person_id = ${id}`);
  };
  await setAll("editor");
  const pair = [
    await newAccount("Owner Ask", { kind: "all" }, "owner"),
    await newAccount("Owner Vili", { kind: "all" }, "owner"),
  ] as const;
  const takeAway = (who: (typeof pair)[number], whom: (typeof pair)[number]) =>
    ask(byKey("POST /api/people"), {
      method: "POST",
      body: { do: "withdraw", person: whom.id, on: { kind: "all" } },
      cookie: who.cookie,
    });
  const done = await Promise.all([takeAway(pair[0], pair[1]), takeAway(pair[1], pair[0])]);
  const left = await database.all(
    sql`SELECT person_id FROM role_grant WHERE scope = 'all' AND role = 'owner'`,
    (row) => String(row.person_id),
  );
  await setAll("owner");
  for (const { id } of pair) await database.run(sql`DELETE FROM role_grant WHERE person_id = ${id}`);
  await database.close();
  expect(left).toHaveLength(1);
  expect(done.filter(({ status }) => status === 200)).toHaveLength(1);
});
