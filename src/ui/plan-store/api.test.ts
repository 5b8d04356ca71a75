import { ERRORS, type ErrorCode } from "@/http/errors";
import { call, fateOf } from "./api";
import { sentenceWhileKept } from "./sentence-while-kept";

const answered = (body: string, status: number) => {
  globalThis.fetch = async () => new Response(body, { status });
};

test.each([
  ["<html>Bad gateway</html>", 502],
  ["", 500],
  ["null", 200],
  ["<html>", 200],
  ['{"error":"x"}', 504],
])("%s with %i is no answer that anything is dropped for", async (body, status) => {
  answered(body, status);
  const unread = `The server's answer (${status}) could not be read.`;
  const answer = await call("/x", "POST", {});
  const refused = { code: "no-answer", sentence: `${unread} See whether it was done before you try again.` };
  expect(answer).toEqual({ ok: false, status, refused });
  expect(fateOf(status, refused.code)).toBe("again");
  // Nothing was to be done: nothing can have been.
  const asked = { ...refused, sentence: `${unread} Try again.` };
  expect(await call("/x")).toEqual({ ok: false, status, refused: asked });
  expect(sentenceWhileKept(status, refused)).toBe(`${unread} Your changes are kept here and are sent again.`);
});

test("a refusal has its own sentence, an answer its value, a dead server neither", async () => {
  answered('{"code":"too-large","sentence":"At most 64 MB."}', 413);
  expect(await call("/x")).toEqual({
    ok: false,
    status: 413,
    refused: { code: "too-large", sentence: "At most 64 MB." },
  });
  answered('{"revision":3}', 200);
  expect(await call("/x")).toEqual({ ok: true, value: { revision: 3 } });
  globalThis.fetch = async () => {
    throw new TypeError("fetch failed");
  };
  const away = await call("/x", "POST", {});
  expect(away).toMatchObject({
    ok: false,
    status: 0,
    refused: { sentence: "The server does not answer. Try again when it does." },
  });
  // Only who keeps it may say so.
  expect(away.ok ? "" : sentenceWhileKept(away.status, away.refused)).toBe(
    "The server does not answer. Your changes are kept here and are sent when it does.",
  );
  expect(sentenceWhileKept(413, { code: "too-large", sentence: "At most 64 MB." })).toBe("At most 64 MB.");
});

test("of all the refusals there are, exactly four drop a batch", () => {
  const codes = Object.keys(ERRORS) as ErrorCode[];
  expect(codes.filter((code) => fateOf(ERRORS[code].status, code) === "drop").sort()).toEqual([
    "bad-request",
    "broken-plan",
    "no-such-site",
    "too-large",
  ]);
  expect(codes.filter((code) => fateOf(ERRORS[code].status, code) === "again")).toEqual(
    expect.arrayContaining(["database-full", "database-unreachable"]),
  );
});
