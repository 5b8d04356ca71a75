import { parseAddress } from "../src/core/address";
import { must } from "../src/core/kernel";
import type { Baseline } from "../src/core/plan";
import { RADIO_SETS } from "../src/core/wireless";
import type { SiteBuilder } from "./site-builder";

const address = (text: string) => must(parseAddress(text), text);

const USUAL: Baseline = {
  waysIn: ["https", "ssh"],
  idleMinutes: 10,
  passwordLength: 14,
  passwordDays: 0,
  nameServers: [],
  timeServers: [],
  logTo: [],
  clock: "site",
  uplinks: "byHand",
  describes: "yes",
};

/** The practice's gear asks the gateway for names and the time. */
const PRACTICE_BASELINE: Baseline = {
  ...USUAL,
  nameServers: [address("10.24.10.1")],
  timeServers: [address("10.24.10.1")],
};
export const PRACTICE_FACTS = { radio: RADIO_SETS.europe, baseline: PRACTICE_BASELINE };
export const UPPER_SWITCH = {
  credentialsPlace: "practice safe, envelope 1",
  softwareFound: "2.1.0",
  softwareWanted: "2.3.1",
};

/** The works keeps UTC, so that the logs of two shifts can be laid side by side. */
export const WORKS_BASELINE: Baseline = { ...USUAL, clock: "utc" };

/** When the works' ring may be stopped. */
export function windowsOfTheWorks(site: SiteBuilder): void {
  site.with((edits, id) => {
    edits.put("window", {
      id: id("window", "Saturday evening"),
      name: "Saturday evening",
      starts: "2028-06-03T18:00",
      minutes: 240,
      segments: [],
      permit: "work permit, from the shift office",
      consent: "production manager",
      notes: "The press is empty from 17:30; the cold store must be back by 22:00.",
    });
  });
}
