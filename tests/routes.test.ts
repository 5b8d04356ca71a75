import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { ACCESS, FOR_MACHINES } from "@/http/access";
import { ERRORS } from "@/http/errors";

function filesUnder(folder: string, name: RegExp): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return filesUnder(path, name);
    if (name.test(entry.name)) return [path];
    return [];
  });
}

const ROUTES = filesUnder("src/app", /^route\.tsx?$/);
const PAGES = filesUnder("src/app", /^(page|layout)\.tsx$/);

test("the walk found the routes and pages", () => {
  expect(ROUTES.length).toBeGreaterThan(5);
  expect(PAGES.length).toBeGreaterThan(0);
});

test.each(ROUTES)(
  "%s lets nobody in by itself: each method is made by one of the four makers of routes",
  (file) => {
    const text = readFileSync(file, "utf8");
    const methods = [...text.matchAll(/export const (\w+) = (\w+)\(\s*"([^"]+)"/g)];
    expect(methods.length).toBeGreaterThan(0);
    const isState = /app\/(healthz|readyz)\/route\.ts$/.test(file);
    // What only says how it is now is never made when the application is built.
    const dynamic = [...text.matchAll(/^export const dynamic = "force-dynamic";$/gm)];
    expect(dynamic).toHaveLength(isState ? 1 : 0);
    expect([...text.matchAll(/^export /gm)]).toHaveLength(methods.length + dynamic.length);
    // Each stands in the one table of access, under its own method and address.
    const address = file.replace(/^src\/app/, "").replace(/\/route\.ts$/, "");
    expect(methods.map((m) => m[3])).toEqual(methods.map((m) => `${m[1]} ${address}`));
    for (const [, , , key] of methods) expect(ACCESS).toHaveProperty([String(key)]);
    const isDoor = (method: string | undefined) =>
      /api\/(enter|sign-in|passkey)\/route\.ts$/.test(file) && method === "POST";
    const maker = (method: string | undefined) => {
      if (isState) return "stateRoute";
      return isDoor(method) ? "doorRoute" : "route";
    };
    const isForMachines = (key: string | undefined) => FOR_MACHINES.some((machine) => machine === key);
    expect(methods.map((m) => m[2])).toEqual(
      methods.map((m) => (isForMachines(m[3]) ? "machineRoute" : maker(m[1]))),
    );
    expect(text).not.toMatch(/\b(if|try|SELECT)\b/);
  },
);

test("the table of access names no route that is not there", () => {
  const there = ROUTES.flatMap((file) =>
    [...readFileSync(file, "utf8").matchAll(/= \w+\(\s*"([^"]+)"/g)].map(([, key]) => key),
  );
  expect(Object.keys(ACCESS).sort()).toEqual(there.sort());
});

test.each(PAGES.filter((file) => !/app\/(layout|enter\/page|handed\/page)\.tsx$/.test(file)))(
  "%s asks who is there",
  (file) => {
    expect(readFileSync(file, "utf8")).toMatch(/await requirePerson\(\)/);
  },
);

test("docs/errors.md lists exactly the refusals there are", () => {
  const documented = [
    ...readFileSync("docs/errors.md", "utf8").matchAll(/^\| `([a-z-]+)` \| (\d+) \| (.+) \|$/gm),
  ].map(([, code, status, text]) => [code, Number(status), text]);
  expect(documented).toEqual(Object.entries(ERRORS).map(([code, { status, text }]) => [code, status, text]));
});
