export { FIELD_WORDS, guessColumns, IMPORT_FIELDS, type ImportField, type Mapping } from "./columns";
export {
  badRowsTable,
  readHostTable,
  writeHostTable,
  type BadRow,
  type GoodRow,
  type ReadTable,
} from "./import-hosts";
export {
  readSeenTable,
  reconcile,
  SEEN_FIELDS,
  SEEN_WORDS,
  seenIn,
  takeSeen,
  type Reconciled,
  type Reconciliation,
  type Seen,
  type SeenField,
  type SeenTable,
  type Verdict,
} from "./reconcile";
export { seriesFrom } from "./series";
