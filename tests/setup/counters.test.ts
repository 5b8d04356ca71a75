import { makeCounters, routeOf } from "../../scripts/setup/counters.mjs";

const ID = "01900000-0000-7000-8000-000000000001";

/** Counters with a clock that is set by hand. */
function counters() {
  const lines: string[] = [];
  let now = 0;
  const made = makeCounters(
    (line: string) => lines.push(line),
    () => now,
  );
  const answer = (url: string, status: number, ms: number, isStream = false) => {
    const end = made.begin({ method: "GET", url });
    now += ms;
    end({ status, isStream });
  };
  return { ...made, lines, answer };
}

test("a route is its path without ids, questions and the names of built files", () => {
  expect([
    routeOf(`/api/sites/${ID}/plan?x=${ID}`),
    routeOf("/enter?key=secret"),
    routeOf("/handed?key=secret&part=walls"),
    routeOf(`/api/sites/${ID}/exports/1-gateway-sheet.csv`),
    routeOf("/_next/static/chunks/a.js"),
  ]).toEqual(["/api/sites/[id]/plan", "/enter", "/handed", "/api/sites/[id]/exports/[file]", "/_next"]);
});

test("answers are counted by route, method and status, their times in buckets that hold one another", () => {
  const { answer, text } = counters();
  answer(`/api/sites/${ID}/plan`, 200, 4);
  answer(`/api/sites/${ID}/plan`, 200, 70);
  answer("/", 503, 900);
  answer("/api/sites/x/events", 200, 3_600_000, true);
  const lines = text({ rss: 5, heapUsed: 3 }, 61.4).split("\n");
  expect(lines).toEqual(
    expect.arrayContaining([
      'dianome_answers_total{route="/api/sites/[id]/plan",method="GET",status="200"} 2',
      'dianome_answers_total{route="/",method="GET",status="503"} 1',
      'dianome_answer_seconds_bucket{le="0.01"} 2',
      'dianome_answer_seconds_bucket{le="0.1"} 3',
      'dianome_answer_seconds_bucket{le="1"} 4',
      'dianome_answer_seconds_bucket{le="+Inf"} 4',
      "dianome_answer_seconds_sum 0.974",
      "dianome_answer_seconds_count 4",
      "dianome_open_requests 0",
      'dianome_memory_bytes{kind="resident"} 5',
      "dianome_up_seconds 61",
    ]),
  );
  // Each line is a comment or a name with a number.
  for (const line of lines.slice(0, -1)) expect(line).toMatch(/^(# TYPE \w+ \w+|\w+(\{[^}]*\})? [\d.]+)$/);
});

test("what failed or was slow is a line of JSON, with the path and no more of the address", () => {
  const { answer, lines } = counters();
  answer("/enter?key=secret", 500, 3);
  answer("/api/sites", 200, 2500);
  answer("/api/sites", 404, 30);
  answer("/api/sites/x/events", 200, 90_000, true);
  expect(lines.map((line) => JSON.parse(line) as unknown)).toEqual([
    { at: expect.any(String), what: "failed", method: "GET", path: "/enter", status: 500, ms: 3 },
    { at: expect.any(String), what: "slow", method: "GET", path: "/api/sites", status: 200, ms: 2500 },
  ]);
  expect(lines.join()).not.toContain("secret");
});

test("strangers who ask for whatever they like make no end of lines", () => {
  const { answer, text } = counters();
  for (let n = 0; n < 500; n += 1) answer(`/nowhere-${n}"\n`, 404, 1);
  const lines = text({ rss: 1, heapUsed: 1 }, 1)
    .split("\n")
    .filter((line) => line.startsWith("dianome_answers_total"));
  expect(lines).toHaveLength(81);
  expect(lines.at(-1)).toBe('dianome_answers_total{route="other",method="GET",status="404"} 420');
});
