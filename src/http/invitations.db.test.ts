import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openDatabase } from "@/storage/pool";
import { sql } from "@/storage/sql";
import { ask, closeStores, cookieOf, databaseUrl, enter } from "../../tests/support/handlers";

// In a module of its own, so that the settings read once are those of a start with --listen.
const dir = mkdtempSync(join(tmpdir(), "invitations-"));
const certificateFile = join(dir, "certificate.pem");
writeFileSync(certificateFile, "-----BEGIN CERTIFICATE-----\n");
process.env.LISTEN_AT = "https://192.0.2.7:4143, https://198.51.100.9:4143";
process.env.LISTEN_CERTIFICATE = certificateFile;
process.env.LISTEN_FINGERPRINT = "AB:CD";
let cookie = "";

beforeAll(async () => {
  cookie = cookieOf(await enter("Ruth"));
});
afterAll(async () => {
  rmSync(dir, { recursive: true, force: true });
  await closeStores();
});

const invitations = async (own = cookie) => {
  const { POST } = await import("@/app/api/invitations/route");
  return ask(POST, { method: "POST", cookie: own });
};
const comeIn = async (key: string, headers: Record<string, string> = {}) => {
  const { POST } = await import("@/app/api/enter/route");
  return ask(POST, { method: "POST", body: { key }, headers });
};

test("who is in lets one other browser in, by a link that works once and says where it leads", async () => {
  const answer = (await (await invitations()).json()) as { key: string };
  expect(answer).toEqual({
    key: expect.stringMatching(/^[\w-]{43}$/),
    urls: ["https://192.0.2.7:4143", "https://198.51.100.9:4143"],
    fingerprint: "AB:CD",
  });
  const entered = await comeIn(answer.key);
  expect([entered.status, (await entered.json()) as unknown]).toEqual([200, { name: "Ruth" }]);
  expect((await comeIn(answer.key)).status).toBe(403);
});

test("a browser over TLS by one of these addresses gets a cookie for TLS only; others nothing", async () => {
  const { key } = (await (await invitations()).json()) as { key: string };
  const at = (host: string) => ({ host, origin: `https://${host}` });
  expect((await comeIn(key, at("203.0.113.1:4143"))).status).toBe(421);
  const entered = await comeIn(key, at("192.0.2.7:4143"));
  expect([entered.status, entered.headers.getSetCookie()]).toEqual([
    200,
    [expect.stringMatching(/; Secure$/), expect.stringMatching(/; Secure$/)],
  ]);
});

test("a stranger lets nobody in, and gets no certificate; who is in gets it as a file", async () => {
  const { GET } = await import("@/app/api/certificate/route");
  expect((await invitations("")).status).toBe(401);
  expect((await ask(GET, { method: "GET" })).status).toBe(401);
  const answer = await ask(GET, { method: "GET", cookie });
  expect([await answer.text(), answer.headers.get("content-disposition")]).toEqual([
    "-----BEGIN CERTIFICATE-----\n",
    'attachment; filename="dianome-certificate.pem"',
  ]);
});

test("however many are asked for, only so many wait, the newest", async () => {
  const keys: string[] = [];
  for (let n = 0; n < 55; n += 1) keys.push(((await (await invitations()).json()) as { key: string }).key);
  const database = openDatabase(databaseUrl);
  const [count] = await database.all(sql`SELECT COUNT(*) AS n FROM entry_link`, (row) => Number(row.n));
  await database.close();
  expect(count).toBeLessThanOrEqual(50);
  expect((await comeIn(keys.at(-1) ?? "")).status).toBe(200);
});
