import { sameNode } from "./same-node";

const Chip = ({ of, shout }: { readonly of: object; readonly shout?: () => void }) => (
  <button onClick={shout}>{Object.keys(of).length}</button>
);
class Index {
  readonly #rows = 1;
  get rows() {
    return this.#rows;
  }
}
const index = new Index();
const shout = () => undefined;

test.each([
  ["text", "Mill", "Mill"],
  ["nothing", null, null],
  ["an element with text", <b key="a">Mill</b>, <b key="a">Mill</b>],
  ["a list of parts", ["1", <i key="x">2</i>], ["1", <i key="x">2</i>]],
  [
    "plain values, whatever their order",
    <Chip key="c" of={{ a: 1, b: [2] }} />,
    <Chip key="c" of={{ b: [2], a: 1 }} />,
  ],
  ["one and the same thing of a class", <Chip key="c" of={index} />, <Chip key="c" of={index} />],
  [
    "one and the same handler",
    <Chip key="c" of={{}} shout={shout} />,
    <Chip key="c" of={{}} shout={shout} />,
  ],
])("the same: %s", (_, a, b) => {
  expect(sameNode(a, b)).toBe(true);
});

test.each([
  ["other text", "Mill", "Barn"],
  ["a number and its text", 1, "1"],
  ["text and an element", "Mill", <b key="a">Mill</b>],
  ["another kind of element", <b key="a">Mill</b>, <i key="a">Mill</i>],
  ["another key", <b key="a">Mill</b>, <b key="b">Mill</b>],
  ["more parts", ["1"], ["1", "2"]],
  ["a value that differs", <Chip key="c" of={{ a: 1 }} />, <Chip key="c" of={{ a: 2 }} />],
  ["a property more", <Chip key="c" of={{}} />, <Chip key="c" of={{}} shout={shout} />],
  ["another thing of the same class", <Chip key="c" of={index} />, <Chip key="c" of={new Index()} />],
  [
    "a handler made anew",
    <Chip key="c" of={{}} shout={() => undefined} />,
    <Chip key="c" of={{}} shout={() => undefined} />,
  ],
])("not the same: %s", (_, a, b) => {
  expect(sameNode(a, b)).toBe(false);
});
