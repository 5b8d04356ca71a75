import { csv } from "./download";

test.each([
  ["=1+1"],
  ["+49 30"],
  ["-1"],
  ["@sum"],
  ["\uff1d1"],
  ["\uff0b1"],
  ["\uff0d1"],
  ["\uff20x"],
  [" =1"],
  ["\t=1"],
  ["\u3000=1"],
  ["\tx"],
])("%j is written as a text", (cell) => {
  expect(csv([["a", cell]])).toBe(`a,"'${cell}"\r\n`);
});

test("what is no formula stays as it is", () =>
  expect(csv([["10.24.20.1", "Lock – House", "a=b", "–", ""]])).toBe("10.24.20.1,Lock – House,a=b,–,\r\n"));
