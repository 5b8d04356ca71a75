// Writes the three made-up sites as plan files.
import { writeFileSync } from "node:fs";
import { writePlanFile } from "../src/core/formats";
import { bramblewick } from "./bramblewick";
import { fennelStreet } from "./fennel-street";
import { lockkeepersHouse } from "./lockkeepers-house";

for (const [file, plan] of [
  ["fennel-street", fennelStreet()],
  ["lockkeepers-house", lockkeepersHouse()],
  ["bramblewick", bramblewick()],
] as const) {
  writeFileSync(new URL(`./${file}.json`, import.meta.url), writePlanFile(plan));
}
