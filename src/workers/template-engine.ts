import { Liquid } from "liquidjs";
import type { DeviceData } from "@/core/device-sheet";

const LIMITS = { parseLimit: 40_000, renderLimit: 2_000, memoryLimit: 20_000_000 } as const;
const MOST_TEXT = 1_000_000;
const refuse = (): never => {
  throw new Error("a template can't take in other files");
};

/**
 * Templates see the sheet's data and nothing else: no files, no properties that JavaScript lends to every
 * object, no endless work.
 */
const engine = new Liquid({
  ...LIMITS,
  relativeReference: false,
  ownPropertyOnly: true,
  strictFilters: true,
  strictVariables: true,
  lenientIf: true,
  dynamicPartials: false,
  fs: {
    readFileSync: refuse,
    readFile: refuse,
    existsSync: () => false,
    exists: () => Promise.resolve(false),
    resolve: (_root, file) => file,
  },
});

/** The text, or a sentence that says what is wrong with the template. */
export type Filled =
  { readonly text: string; readonly fault: null } | { readonly text: null; readonly fault: string };

/** Fills a user's template with a device's data. */
export function fillTemplate(template: string, data: DeviceData): Filled {
  try {
    const text = String(engine.parseAndRenderSync(template, data));
    if (text.length > MOST_TEXT)
      return {
        text: null,
        fault:
          `The text would be longer than ${MOST_TEXT.toLocaleString("en-GB")} ` +
          "characters; leave something out.",
      };
    return { text, fault: null };
  } catch (error) {
    const said = error instanceof Error ? (error.message.split("\n")[0] ?? "") : String(error);
    return { text: null, fault: `The template can't be filled: ${said.slice(0, 200)}.` };
  }
}
