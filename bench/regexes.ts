// Every regular expression of the source against texts that are made to slow it down: long runs of what it may
// repeat, behind words of its own, with an end that does not fit.
//   npm run regexes -- [characters]
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import ts from "typescript";

const LENGTH = Number(process.argv[2] ?? 2000);
const SHOWN = 8;
const SLOW_MS = 100;

interface Found {
  readonly place: string;
  readonly pattern: RegExp;
}
interface Timed extends Found {
  readonly ms: number;
  readonly attack: string;
}

function inFile(file: string): Found[] {
  const source = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
  const found: Found[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isRegularExpressionLiteral(node)) {
      const end = node.text.lastIndexOf("/");
      const line = source.getLineAndCharacterOfPosition(node.getStart()).line + 1;
      const flags = node.text.slice(end + 1).replace("y", "");
      found.push({ place: `${file}:${line}`, pattern: new RegExp(node.text.slice(1, end), flags) });
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

const RUNS = [
  " ",
  "\t",
  "-",
  "1",
  ",",
  ".",
  ":",
  "a",
  "0",
  "/",
  "1 ",
  "1-",
  ", ",
  "1x1 ",
  " in ",
  " to 1",
  "a in a to ",
];
const ENDS = ["!", "\u0000", "", "\n!"];
/** What leads into the pattern: words that stand in it, and what numbers and names begin with. */
const beginnings = ({ source }: RegExp): string[] => [
  ...["", "1", "a", "1 x ", "1:"],
  ...(source.match(/[a-z]{2,}/gi) ?? []).flatMap((word) => [word, `${word} `]).slice(0, 12),
];

function slowest(found: Found): Timed {
  let worst: Timed = { ...found, ms: 0, attack: "" };
  for (const run of RUNS)
    for (const beginning of beginnings(found.pattern))
      for (const end of ENDS) {
        const text = beginning + run.repeat(Math.ceil(LENGTH / run.length)) + end;
        const began = performance.now();
        text.replace(found.pattern, "");
        const ms = performance.now() - began;
        if (ms > worst.ms) worst = { ...found, ms, attack: JSON.stringify(beginning + run) };
      }
  return worst;
}

const files = readdirSync("src", { recursive: true, encoding: "utf8" })
  .filter((name) => /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name))
  .map((name) => join("src", name));
const all = files.flatMap(inFile).map(slowest);
all.sort((a, b) => b.ms - a.ms);
for (const { ms, place, attack, pattern } of all.slice(0, SHOWN))
  console.info(`${ms.toFixed(1)} ms  ${place}  ${attack}  ${pattern.source.slice(0, 60)}`);
const slow = all.filter(({ ms }) => ms > SLOW_MS).length;
console.info(`${all.length} regular expressions, ${LENGTH} characters: ${slow} took more than ${SLOW_MS} ms`);
