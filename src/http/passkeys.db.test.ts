import type { AccountAnswer } from "./contracts/answers";
import { newAccount, PASSWORD } from "../../tests/support/accounts";
import { authenticator } from "../../tests/support/authenticator";
import { ask, closeStores, cookieOf } from "../../tests/support/handlers";

// Passkeys by the routes, with an authenticator in software: what is signed once, here, by the right key.

afterAll(closeStores);

const AT = { host: "localhost", origin: "http://localhost:4100" };
const HEADERS = { host: "localhost:4100", origin: AT.origin };
type Body = Record<string, never> & { code?: string; challenge?: string };

async function order(cookie: string, body: object, headers: Record<string, string> = HEADERS) {
  const { POST } = await import("@/app/api/account/route");
  const answer = await ask(POST, { method: "POST", body, cookie, headers });
  return { status: answer.status, body: (await answer.json()) as Body };
}
async function atDoor(body: object, headers: Record<string, string> = HEADERS) {
  const { POST } = await import("@/app/api/passkey/route");
  const answer = await ask(POST, { method: "POST", body, headers });
  return { status: answer.status, body: (await answer.json()) as Body, cookie: cookieOf(answer) };
}
async function account(cookie: string) {
  const { GET } = await import("@/app/api/account/route");
  const answer = await ask(GET, { method: "GET", cookie });
  return { status: answer.status, body: (await answer.json()) as AccountAnswer };
}
const asked = async (): Promise<string> => String((await atDoor({ do: "ask" })).body.challenge);
const begun = async (cookie: string): Promise<string> =>
  String((await order(cookie, { do: "beginPasskey", password: PASSWORD })).body.challenge);

/** Somebody new with a key. */
async function withKey(name: string) {
  const { cookie } = await newAccount(name, null);
  const key = authenticator(AT);
  const added = await order(cookie, {
    do: "addPasskey",
    title: "work laptop",
    answer: key.make(await begun(cookie)),
  });
  expect([added.status, added.body]).toEqual([200, {}]);
  return { cookie, key };
}

test("a key is added with the password, signs in without it, and is removed", async () => {
  const { cookie, key } = await withKey("Torunn");
  const [own] = (await account(cookie)).body.passkeys;
  expect(own).toMatchObject({ title: "work laptop", host: "localhost", usedAt: null });
  const back = await atDoor({ do: "prove", answer: key.sign(await asked(), 1) });
  expect([back.status, back.body]).toEqual([200, { name: "Torunn" }]);
  expect((await account(back.cookie)).body.passkeys[0]?.usedAt).not.toBeNull();
  expect((await order(cookie, { do: "removePasskey", id: own?.id })).status).toBe(200);
  expect((await atDoor({ do: "prove", answer: key.sign(await asked(), 2) })).status).toBe(403);
});

test("what was signed counts once, and a counter that goes back tells of a copy", async () => {
  const { key } = await withKey("Vigdis");
  const signed = key.sign(await asked(), 5);
  expect((await atDoor({ do: "prove", answer: signed })).status).toBe(200);
  expect((await atDoor({ do: "prove", answer: signed })).body.code).toBe("bad-passkey");
  for (const counter of [5, 4, 0])
    expect((await atDoor({ do: "prove", answer: key.sign(await asked(), counter) })).status).toBe(403);
  expect((await atDoor({ do: "prove", answer: key.sign(await asked(), 6) })).status).toBe(200);
});

test("a key of another page, another name or another device, or one that nobody asked, is none", async () => {
  const { cookie, key } = await withKey("Ragnhild");
  const far = authenticator({ host: "localhost", origin: "http://localhost:4999" });
  const other = authenticator({ host: "example.org", origin: AT.origin });
  for (const strange of [far, other]) {
    const answer = strange.make(await begun(cookie));
    expect((await order(cookie, { do: "addPasskey", title: "strange", answer })).status).toBe(403);
  }
  const own = key.sign(await asked(), 3);
  const forged = { ...authenticator(AT).sign(await asked(), 3), id: own.id, rawId: own.id };
  expect((await atDoor({ do: "prove", answer: forged })).status).toBe(403);
  expect((await atDoor({ do: "prove", answer: key.sign("bm90IGFza2Vk", 3) })).status).toBe(403);
  expect((await atDoor({ do: "prove", answer: { id: "nobody's" } })).body.code).toBe("bad-passkey");
  // What was begun by one person adds no key to another's account, nor is it good at the door.
  const { cookie: another } = await newAccount("Dagny", null);
  const answer = authenticator(AT).make(await begun(cookie));
  expect((await order(another, { do: "addPasskey", title: "taken", answer })).status).toBe(403);
  expect((await atDoor({ do: "prove", answer: key.sign(await begun(cookie), 3) })).status).toBe(403);
  expect((await atDoor({ do: "prove", answer: key.sign(await asked(), 3) })).status).toBe(200);
});

test("without the password no key is begun, and an address in numbers says that it holds none", async () => {
  const { cookie } = await newAccount("Solveig", null);
  expect((await order(cookie, { do: "beginPasskey", password: "not it at all" })).body.code).toBe(
    "wrong-sign-in",
  );
  const numbers = await order(cookie, { do: "beginPasskey", password: PASSWORD }, {});
  expect([numbers.status, String(numbers.body.sentence)]).toEqual([
    403,
    expect.stringContaining("on this machine that is localhost"),
  ]);
  expect((await atDoor({ do: "ask" }, {})).status).toBe(403);
});
