import { Secret, TOTP } from "otpauth";
import { v7 } from "uuid";
import { stores } from "@/composition";
import { must } from "@/core/kernel";
import { openDatabase } from "@/storage/pool";
import { sql } from "@/storage/sql";
import type { AccountAnswer } from "./contracts/answers";
import { newAccount, PASSWORD, signIn } from "../../tests/support/accounts";
import { ask, closeStores, cookieOf, databaseUrl, enter } from "../../tests/support/handlers";

// Accounts by the routes, on the real database: passwords, second factors, sessions, links, and who guesses.

const database = openDatabase(databaseUrl);
afterAll(async () => {
  await database.close();
  await closeStores();
});

const route = () => import("@/app/api/account/route");
async function order(cookie: string, body: object) {
  const answer = await ask((await route()).POST, { method: "POST", body, cookie });
  return { status: answer.status, body: (await answer.json()) as Record<string, never> & { code?: string } };
}
const account = async (cookie: string) =>
  (await (await ask((await route()).GET, { method: "GET", cookie })).json()) as AccountAnswer;
const isIn = async (cookie: string) =>
  (await ask((await route()).GET, { method: "GET", cookie })).status === 200;
const codeOf = async (answer: Response) => ((await answer.json()) as { code?: string }).code;
const codeNow = (secret: string, shift = 0) =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() + shift * 30_000 });
const rows = (name: string) =>
  database.maybeOne(sql`SELECT password_hash, factor_secret FROM person WHERE name = ${name}`, (row) => row);
/** Lets the waits of all tries be over. */
const waitOver = () => database.run(sql`UPDATE sign_in_try SET free_at = UTC_TIMESTAMP(3)`);
/** Lets those that wait do so for long, however slow this machine is. */
const waitLong = () =>
  database.run(
    sql`UPDATE sign_in_try SET free_at = UTC_TIMESTAMP(3) + INTERVAL 200 SECOND WHERE free_at > last_at`,
  );
const forgetTries = () => database.run(sql`DELETE FROM sign_in_try`);

test("an account is made by an invitation, signs in and out; what is stored is an Argon2id hash", async () => {
  const { cookie, name } = await newAccount("Ines", null);
  expect(String(must(await rows(name), name).password_hash)).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  expect(await isIn(cookie)).toBe(true);
  const { DELETE } = await import("@/app/api/enter/route");
  await ask(DELETE, { method: "DELETE", cookie });
  expect(await isIn(cookie)).toBe(false);
  const back = await signIn({ name: " Ines ", password: PASSWORD });
  expect([back.status, (await back.json()) as unknown]).toEqual([200, { name: "Ines" }]);
  expect(await isIn(cookieOf(back))).toBe(true);
});

test.each([
  ["short", "A password has at least 12 characters"],
  ["aaaaaaaaaaaaaaaa", "at least five different characters"],
  ["x".repeat(201), "at most 200 characters"],
])("a password like %j is refused with a sentence, and the link is not used up", async (password, words) => {
  const { entries, tools } = stores();
  const key = tools.newToken();
  const grant = { on: { kind: "all" }, role: "viewer" } as const;
  await entries.addLink(v7(), tools.hash(key), { kind: "invite", person: null, grant, madeBy: v7() });
  const { POST } = await import("@/app/api/enter/route");
  const answer = await ask(POST, { method: "POST", body: { key, name: "Nobody yet", password } });
  expect([answer.status, ((await answer.json()) as { sentence: string }).sentence]).toEqual([
    400,
    expect.stringContaining(words),
  ]);
  expect(await entries.linkFor(tools.hash(key))).not.toBeNull();
});

test("nobody takes a name that somebody has: neither an account's nor one known by name only", async () => {
  const { name } = await newAccount("Bodil", null);
  const { accounts, entries, tools } = stores();
  await accounts.personNamed("Known by name", v7());
  const { POST } = await import("@/app/api/enter/route");
  for (const taken of [name, "Known by name"]) {
    const key = tools.newToken();
    const grant = { on: { kind: "all" }, role: "owner" } as const;
    await entries.addLink(v7(), tools.hash(key), { kind: "invite", person: null, grant, madeBy: v7() });
    const answer = await ask(POST, { method: "POST", body: { key, name: taken, password: PASSWORD } });
    expect([answer.status, await codeOf(answer)]).toEqual([409, "name-taken"]);
  }
});

test("who is known by name takes the account of that name by invitation, and stays who they were", async () => {
  const { accounts, entries, tools } = stores();
  const known = await accounts.personNamed("Halvard", v7());
  const link = async () => {
    const key = tools.newToken();
    const grant = { on: { kind: "all" }, role: "viewer" } as const;
    await entries.addLink(v7(), tools.hash(key), { kind: "invite", person: known.id, grant, madeBy: v7() });
    return key;
  };
  const { POST } = await import("@/app/api/enter/route");
  const answer = await ask(POST, { method: "POST", body: { key: await link(), password: PASSWORD } });
  expect([answer.status, (await answer.json()) as unknown]).toEqual([200, { name: "Halvard" }]);
  expect(must(await accounts.credentialsNamed("Halvard"), "the account").person.id).toBe(known.id);
  // A second one sets no other password: the account is asked to sign in first.
  const again = await ask(POST, {
    method: "POST",
    body: { key: await link(), password: "another password of theirs" },
  });
  expect([again.status, await codeOf(again)]).toEqual([409, "sign-in-first"]);
});

test("a wrong name and a wrong password are answered alike; each wait after five is doubled", async () => {
  await forgetTries();
  await newAccount("Sunniva", null);
  const wrong = await signIn({ name: "Sunniva", password: "not the password" });
  const nobody = await signIn({ name: "Nobody of that name", password: "not the password" });
  expect([wrong.status, await wrong.text()]).toEqual([nobody.status, await nobody.text()]);
  const waits: (number | null)[] = [];
  for (let n = 2; n <= 8; n += 1) {
    await waitOver();
    expect((await signIn({ name: "Sunniva", password: "not the password" })).status).toBe(403);
    waits.push(
      await database.maybeOne(
        sql`SELECT TIMESTAMPDIFF(SECOND, last_at, free_at) AS wait FROM sign_in_try WHERE failed = ${n}`,
        (row) => Number(row.wait),
      ),
    );
  }
  expect(waits).toEqual([0, 0, 0, 1, 2, 4, 8]);
  // Even the right password waits, and is told how long; a try that waits is not counted.
  await waitLong();
  for (let n = 0; n < 2; n += 1) {
    const answer = await signIn({ name: "Sunniva", password: PASSWORD });
    expect([answer.status, ((await answer.json()) as { sentence: string }).sentence]).toEqual([
      429,
      expect.stringMatching(/^Too many tries went wrong. Wait \d+ seconds, then try again.$/),
    ]);
  }
  await waitOver();
  expect((await signIn({ name: "Sunniva", password: PASSWORD })).status).toBe(200);
  expect(await database.all(sql`SELECT failed FROM sign_in_try WHERE failed > 1`, (row) => row)).toEqual([]);
  await forgetTries();
});

test("who guesses at a name keeps nobody out of their own browser; many names wait, too", async () => {
  await forgetTries();
  await newAccount("Torvald", null);
  const first = await signIn({ name: "Torvald", password: PASSWORD });
  const known = must(
    first.headers.getSetCookie().find((cookie) => cookie.startsWith("dianome_known_")),
    "the mark of the browser",
  ).split(";")[0];
  const from = (address: string, cookie = "") => ({ "x-client-address": address, cookie });
  const guess = async (name: string, times: number, headers: Record<string, string>) => {
    for (let n = 0; n < times; n += 1) await signIn({ name, password: "a guess of many" }, headers);
    await waitLong();
  };
  await guess("Torvald", 5, from("192.0.2.1"));
  const body = { name: "Torvald", password: PASSWORD };
  expect((await signIn(body, from("192.0.2.2"))).status).toBe(429);
  expect((await signIn(body, from("192.0.2.2", known))).status).toBe(200);
  // The mark of one person's browser is worth nothing for another name.
  await newAccount("Yrsa", null);
  await guess("Yrsa", 5, from("192.0.2.3", known));
  expect((await signIn({ name: "Yrsa", password: PASSWORD }, from("", known))).status).toBe(429);

  await forgetTries();
  for (let n = 0; n < 30; n += 1)
    expect((await signIn({ name: `Name ${n}`, password: "x" }, from("198.51.100.7"))).status).toBe(403);
  await waitLong();
  expect((await signIn({ name: "One more", password: "x" }, from("198.51.100.7"))).status).toBe(429);
  expect((await signIn({ name: "One more", password: "x" }, from("198.51.100.8"))).status).toBe(403);
  await forgetTries();
});

test("as many tries at once are as many tries", async () => {
  await forgetTries();
  await newAccount("Embla", null);
  await signIn({ name: "Embla", password: "not the password" });
  // The next one that fails has a wait of minutes behind it.
  await database.run(sql`UPDATE sign_in_try SET failed = 12`);
  const many = await Promise.all(
    Array.from({ length: 20 }, () => signIn({ name: "Embla", password: "not the password" })),
  );
  expect(many.map(({ status }) => status).sort()).toEqual([403, ...Array.from({ length: 19 }, () => 429)]);
  await forgetTries();
});

test("a second factor: after the right password only, no code twice, recovery codes once", async () => {
  // In the middle of a step, where it stays.
  const clock = jest.spyOn(Date, "now").mockReturnValue(1_795_000_005_000);
  const { cookie, name } = await newAccount("Liv", null);
  const made = await order(cookie, { do: "newSecret" });
  const secret = String((made.body as { secret?: string }).secret);
  const wrong = await order(cookie, { do: "factor", password: PASSWORD, secret, code: "000000x" });
  expect([wrong.status, wrong.body.code]).toEqual([403, "bad-code"]);
  const other = await order(cookie, { do: "factor", password: "no", secret, code: codeNow(secret) });
  expect([other.status, other.body.code]).toEqual([403, "wrong-sign-in"]);
  const on = await order(cookie, { do: "factor", password: PASSWORD, secret, code: codeNow(secret, -1) });
  const codes = must((on.body as { codes?: readonly string[] }).codes, "recovery codes");
  expect([new Set(codes).size, codes.every((code) => /^[\da-z]{5}-[\da-z]{5}$/.test(code))]).toEqual([
    10,
    true,
  ]);
  expect(await account(cookie)).toMatchObject({ hasFactor: true, codesLeft: 10 });

  const asks = async (more: object) => {
    const answer = await signIn({ name, password: PASSWORD, ...more });
    return [answer.status, await codeOf(answer)];
  };
  expect(await asks({ password: "not it", code: codeNow(secret) })).toEqual([403, "wrong-sign-in"]);
  expect(await asks({})).toEqual([403, "code-wanted"]);
  expect(await asks({ code: "123" })).toEqual([403, "bad-code"]);
  // The step before was used when it was set up.
  expect(await asks({ code: codeNow(secret, -1) })).toEqual([403, "bad-code"]);
  await forgetTries();
  const code = codeNow(secret);
  expect(await asks({ code })).toEqual([200, undefined]);
  expect(await asks({ code })).toEqual([403, "bad-code"]);
  const written = must(codes[3], "a code").toUpperCase().replace("-", " ");
  expect(await asks({ code: written })).toEqual([200, undefined]);
  expect(await asks({ code: written })).toEqual([403, "bad-code"]);
  expect((await account(cookie)).codesLeft).toBe(9);
  await forgetTries();

  expect((await order(cookie, { do: "noFactor", password: "no" })).status).toBe(403);
  expect((await order(cookie, { do: "noFactor", password: PASSWORD })).status).toBe(200);
  expect(await asks({})).toEqual([200, undefined]);
  expect(await account(cookie)).toMatchObject({ hasFactor: false, codesLeft: 0 });
  clock.mockRestore();
});

test("sessions are listed, ended one by one or all but this; a new password ends the others", async () => {
  const { cookie: first, name } = await newAccount("Oddny", null);
  const more = async () =>
    cookieOf(await signIn({ name, password: PASSWORD }, { "x-client-address": "203.0.113.9" }));
  const [second, third] = [await more(), await more()];
  const { sessions } = await account(first);
  expect([sessions.length, sessions.filter(({ isThis }) => isThis).length]).toEqual([3, 1]);
  expect(sessions.filter(({ cameFrom }) => cameFrom === "203.0.113.9")).toHaveLength(2);
  const own = must(
    (await account(second)).sessions.find(({ isThis }) => isThis),
    "the second",
  );
  await order(first, { do: "endSession", id: own.id });
  expect([await isIn(first), await isIn(second), await isIn(third)]).toEqual([true, false, true]);
  // Somebody else's session is not one's own to end.
  const stranger = await newAccount("Ragna", null);
  const theirs = must((await account(stranger.cookie)).sessions[0], "theirs");
  await order(first, { do: "endSession", id: theirs.id });
  expect(await isIn(stranger.cookie)).toBe(true);

  const fresh = "a wholly other phrase";
  expect((await order(first, { do: "password", old: "no", password: fresh })).status).toBe(403);
  expect((await order(first, { do: "password", old: PASSWORD, password: fresh })).status).toBe(200);
  expect([await isIn(first), await isIn(third)]).toEqual([true, false]);
  expect((await signIn({ name, password: PASSWORD })).status).toBe(403);
  const fourth = cookieOf(await signIn({ name, password: fresh }));
  await order(first, { do: "endSession", id: null });
  expect([await isIn(first), await isIn(fourth)]).toEqual([true, false]);
});

test("the machine's command sets a password anew, takes the factor away and ends all sessions", async () => {
  const { cookie, name, id } = await newAccount("Gudrun", null);
  const secret = String(((await order(cookie, { do: "newSecret" })).body as { secret?: string }).secret);
  await order(cookie, { do: "factor", password: PASSWORD, secret, code: codeNow(secret) });
  const { makeResetLink } = await import("../../scripts/setup/entry-link.mjs");
  await expect(makeResetLink(databaseUrl, "http://127.0.0.1:4100", "Gudrunn")).rejects.toThrow(
    /Nobody here is called "Gudrunn"\. Known are .*Gudrun/,
  );
  const link: string = await makeResetLink(databaseUrl, "http://127.0.0.1:4100", name);
  const key = must(link.split("key=")[1], "the key");
  const { POST } = await import("@/app/api/enter/route");
  const bare = await ask(POST, { method: "POST", body: { key } });
  expect(bare.status).toBe(409);
  const fresh = "quite another phrase now";
  const answer = await ask(POST, { method: "POST", body: { key, password: fresh } });
  expect([answer.status, await isIn(cookie), await isIn(cookieOf(answer))]).toEqual([200, false, true]);
  expect((await ask(POST, { method: "POST", body: { key, password: fresh } })).status).toBe(403);
  expect((await signIn({ name, password: fresh })).status).toBe(200);
  expect(must(await stores().accounts.credentialsOf(id), name).factorSecret).toBeNull();
});

test("the first link makes an owner as long as there is none, and only then", async () => {
  // The demo's people own everything without a password: an owner's account is still to be made.
  await enter("Ruth");
  const { makeFirstLink } = await import("../../scripts/setup/entry-link.mjs");
  const { accounts } = stores();
  const owners = await database.all(
    sql`SELECT p.id FROM role_grant g JOIN person p ON p.id = g.person_id
      WHERE g.scope = 'all' AND g.role = 'owner' AND p.password_hash IS NOT NULL`,
    (row) => String(row.id),
  );
  for (const id of owners) await database.run(sql`UPDATE person SET password_hash = NULL WHERE id = ${id}`);
  const link = async () =>
    (await makeFirstLink(databaseUrl, "http://127.0.0.1:4100"))?.split("key=")[1] ?? null;
  const [one, two] = [must(await link(), "a link"), must(await link(), "another")];
  await accounts.personNamed("Astrid", v7());
  const { POST } = await import("@/app/api/enter/route");
  const body = { key: one, name: "Astrid", password: PASSWORD };
  const answer = await ask(POST, { method: "POST", body });
  expect(answer.status).toBe(200);
  const { GET } = await import("@/app/api/people/route");
  const seen = (await (await ask(GET, { method: "GET", cookie: cookieOf(answer) })).json()) as {
    ownsAll: boolean;
  };
  expect(seen.ownsAll).toBe(true);
  expect(await link()).toBeNull();
  const late = await ask(POST, { method: "POST", body: { ...body, key: two, name: "Late" } });
  expect([late.status, await codeOf(late)]).toEqual([403, "bad-link"]);
});
