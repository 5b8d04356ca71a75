import { isKept, isPlan, isSitePage, planOf, runbookPageOf } from "./kept";

const SITE = "3c851736-e759-726c-822e-ada23d0378d8";

test("pages of sites and their plans are kept; lists, records, the door and others' addresses are not", () => {
  expect([isSitePage(`/sites/${SITE}`), isSitePage(runbookPageOf(SITE)), isPlan(planOf(SITE))]).toEqual([
    true,
    true,
    true,
  ]);
  for (const path of [
    "/",
    "/enter",
    "/sites",
    "/sites/new",
    `/sites/${SITE}/a/b`,
    `/api/sites/${SITE}/record`,
  ])
    expect([path, isSitePage(path), isPlan(path)]).toEqual([path, false, false]);
});

test("a refusal, a redirect to the door and half an answer are not kept", () => {
  const answer = (fields: object) => ({ status: 200, redirected: false, ...fields });
  expect([
    isKept(answer({})),
    isKept(answer({ status: 401 })),
    isKept(answer({ status: 206 })),
    isKept(answer({ redirected: true })),
  ]).toEqual([true, false, false, false]);
});
