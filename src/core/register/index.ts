export { FIELD_WORDS, guessColumns, IMPORT_FIELDS, type ImportField, type Mapping } from "./columns";
export { badRowsTable, readHostTable, type ReadTable, writeHostTable } from "./import-hosts";
export {
  readSeenTable,
  reconcile,
  type Reconciled,
  SEEN_FIELDS,
  SEEN_WORDS,
  type SeenField,
  seenIn,
  type SeenTable,
  takeSeen,
  type Verdict,
} from "./reconcile";
export { seriesFrom } from "./series";
