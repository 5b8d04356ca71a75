// Writes the readers of what our own server has validated. By itself and first: what the other documents are
// made from needs this file.
import { writeFileSync } from "node:fs";
import { storedSource } from "./stored-source";

writeFileSync("src/core/plan/schema/stored.generated.ts", storedSource());
