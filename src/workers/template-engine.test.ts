import { fennelStreet } from "../../demo/fennel-street";
import { deviceData, EXAMPLE_TEMPLATES } from "@/core/device-sheet";
import { must } from "@/core/kernel";
import { PlanIndex } from "@/core/plan";
import { fillTemplate } from "./template-engine";

const index = PlanIndex.of(fennelStreet());
const device = must(
  [...index.plan.device.values()].find((device) => device.name === "Switch B"),
  "Switch B",
);
const data = deviceData(index, device);

test.each(EXAMPLE_TEMPLATES.map((template) => [template.name, template.text] as const))(
  "the example %s says every port that is on",
  (_, text) => {
    const filled = fillTemplate(text, data);
    expect(filled.fault).toBeNull();
    for (const port of data.ports.filter((port) => port.enabled)) expect(filled.text).toContain(port.label);
    expect(filled.text).not.toMatch(/\[object|undefined|null/);
  },
);

test.each([
  ["a file", "{% include '/etc/passwd' %}"],
  ["a file by another tag", "{% render 'secret' %}"],
  ["a layout", "{% layout 'x' %}"],
  ["an endless loop", "{% for a in (1..100000000) %}{{ a }}{% endfor %}"],
  ["loops in loops", "{% for a in (1..3000) %}{% for b in (1..3000) %}x{% endfor %}{% endfor %}"],
  [
    "a text that doubles",
    `{% assign a = "xxxxxxxxxx" %}${"{% assign a = a | append: a %}".repeat(40)}{{ a }}`,
  ],
  ["a property of the language", "{{ name.constructor.constructor }}"],
  ["a prototype", "{{ ports.__proto__.polluted }}"],
  ["a filter there is not", "{{ name | system: 'ls' }}"],
  ["a word there is not", "{{ nobody }}"],
  ["a tag that never ends", "{% for a in ports %}"],
  ["a template that is too long", "{{ name }}".repeat(5000)],
])("a template that wants %s is told so and gives nothing", (_, text) => {
  const filled = fillTemplate(text, data);
  expect(filled.text).toBeNull();
  expect(filled.fault).toMatch(/^The (template can't be filled: .+|text would be longer .+)\.$/);
});
