// Writes the three made-up sites as plan files, and a capture that was taken at one of them.
import { writeFileSync } from "node:fs";
import { writePlanFile } from "../src/core/formats";
import { bramblewick } from "./bramblewick";
import { LEFT_IN, printerHeard } from "./capture";
import { fennelStreet } from "./fennel-street";
import { lockkeepersHouse } from "./lockkeepers-house";

for (const [file, plan] of [
  ["fennel-street", fennelStreet()],
  ["lockkeepers-house", lockkeepersHouse()],
  ["bramblewick", bramblewick()],
] as const) {
  writeFileSync(new URL(`./${file}.json`, import.meta.url), writePlanFile(plan));
}
writeFileSync(new URL("./reception-printer.pcapng", import.meta.url), printerHeard(LEFT_IN));
