// What the server counts of itself, in the open text format for metrics, and what it writes into its log: one
// line of JSON for an answer that failed or was slow. Neither holds more of an address than its path: a link's
// key stands behind the question mark.

/** Upper bounds of the times that answers are counted by, in seconds. */
const BOUNDS = [0.01, 0.05, 0.1, 0.5, 1, 5];
const SLOW_MS = 2000;

/** The path of an address with the ids in it taken out: as many lines as there are routes. */
export const routeOf = (url) =>
  (url.split("?")[0] ?? "")
    .replace(/[\da-f]{8}(-[\da-f]{4}){3}-[\da-f]{12}/gi, "[id]")
    .replace(/\/exports\/.+/, "/exports/[file]")
    .replace(/^\/_next\/.*/, "/_next");

const label = (text) => text.replace(/[\\"\n]/g, "_").slice(0, 80);
/** So many different routes are counted by name: strangers ask for whatever they like. */
const MOST_ROUTES = 80;

export function makeCounters(write, clock = () => performance.now()) {
  const answers = new Map();
  const routes = new Set();
  const times = { counts: BOUNDS.map(() => 0), sum: 0, all: 0 };
  let open = 0;

  const named = (route) => {
    if (routes.size < MOST_ROUTES) routes.add(route);
    return routes.has(route) ? route : "other";
  };
  const count = ({ method, url, status }, ms) => {
    const key = `route="${label(named(routeOf(url)))}",method="${label(method)}",status="${status}"`;
    answers.set(key, (answers.get(key) ?? 0) + 1);
    for (const [at, bound] of BOUNDS.entries()) if (ms <= bound * 1000) times.counts[at] += 1;
    times.sum += ms / 1000;
    times.all += 1;
  };

  /**
   * A request has come; answers what is called when its answer is over, with its status and whether it is a
   * stream.
   */
  const begin = ({ method, url }) => {
    const began = clock();
    open += 1;
    return ({ status, isStream }) => {
      open -= 1;
      const ms = clock() - began;
      // A stream of events is open as long as somebody listens: that says nothing of how fast we are.
      count({ method, url, status }, isStream ? 0 : ms);
      if (status < 500 && (isStream || ms < SLOW_MS)) return;
      const path = url.split("?")[0];
      const what = status >= 500 ? "failed" : "slow";
      write(JSON.stringify({ at: new Date().toISOString(), what, method, path, status, ms: Math.round(ms) }));
    };
  };

  /** Everything that was counted, in the open text format. */
  const text = (memory, upSeconds) =>
    [
      "# TYPE dianome_answers_total counter",
      ...[...answers].map(([key, value]) => `dianome_answers_total{${key}} ${value}`),
      "# TYPE dianome_answer_seconds histogram",
      ...BOUNDS.map((bound, at) => `dianome_answer_seconds_bucket{le="${bound}"} ${times.counts[at]}`),
      `dianome_answer_seconds_bucket{le="+Inf"} ${times.all}`,
      `dianome_answer_seconds_sum ${times.sum.toFixed(3)}`,
      `dianome_answer_seconds_count ${times.all}`,
      "# TYPE dianome_open_requests gauge",
      `dianome_open_requests ${open}`,
      "# TYPE dianome_memory_bytes gauge",
      `dianome_memory_bytes{kind="resident"} ${memory.rss}`,
      `dianome_memory_bytes{kind="heap"} ${memory.heapUsed}`,
      "# TYPE dianome_up_seconds gauge",
      `dianome_up_seconds ${Math.round(upSeconds)}`,
      "",
    ].join("\n");

  return { begin, text };
}
