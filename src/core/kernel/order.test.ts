import { dice } from "../testing/plants";
import { byNaturalText, byText } from "./order";

/** The order as it is said: piece by piece. */
function pieceByPiece(a: string, b: string): number {
  const left = a.match(/\d+|\D+/g) ?? [];
  const right = b.match(/\d+|\D+/g) ?? [];
  for (const [i, x] of left.entries()) {
    const y = right[i];
    if (y === undefined) return 1;
    const bothNumbers = /^\d/.test(x) && /^\d/.test(y);
    const order = bothNumbers ? Number(x) - Number(y) || byText(x, y) : byText(x, y);
    if (order !== 0) return order;
  }
  return left.length - right.length;
}

test("texts are ordered as a person counts, piece by piece", () => {
  const roll = dice(30);
  const text = () =>
    Array.from({ length: roll(7) }, () => "ab0019 -\u{1F50C}\u00e9"[roll(11)] ?? "").join("");
  const pairs = Array.from({ length: 100_000 }, () => [text(), text()] as const);
  const wrong = pairs.filter(([a, b]) => Math.sign(byNaturalText(a, b)) !== Math.sign(pieceByPiece(a, b)));
  expect(wrong).toEqual([]);
});

test("a number that is longer than any that is counted with has its place, too", () => {
  const long = "9".repeat(400);
  expect(byNaturalText(`port ${long}`, `port ${long}1`)).toBeLessThan(0);
  expect(byNaturalText("port 9", `port ${long}`)).toBeLessThan(0);
});
