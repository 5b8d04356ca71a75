import { z } from "zod";
import { groupField, lineField, longText } from "./fields";

/** Where the codes on labels lead: an origin with or without a path, nothing after it. */
const linkField = lineField(200).refine(
  (text) => text === "" || /^https?:\/\/[^\s/?#@]+(\/[^\s?#]*)?$/.test(text),
  "An address such as https://plans.example.net, without ? and #",
);

/** What stands on the papers of a site beside its plan. */
export const paperField = groupField(
  z.strictObject({
    firm: longText.meta({ description: "Who plans and builds: name, address, telephone, line by line" }),
    customer: longText.meta({ description: "For whom, and whom to ask there, line by line" }),
    agreed: longText.meta({ description: "What was agreed, in the customer's words" }),
    calls: longText.meta({ description: "What to look at and whom to call when something fails" }),
    linkBase: linkField.meta({ description: "Where Dianome is, for the codes on labels; empty: no codes" }),
  }),
);
export type Paper = z.output<typeof paperField>;
