export { FIELD_WORDS, guessColumns, IMPORT_FIELDS, type ImportField, type Mapping } from "./columns";
export {
  type BadRow,
  badRowsTable,
  type GoodRow,
  readHostTable,
  type ReadTable,
  writeHostTable,
} from "./import-hosts";
export {
  readSeenTable,
  reconcile,
  type Reconciled,
  type Reconciliation,
  type Seen,
  SEEN_FIELDS,
  SEEN_WORDS,
  type SeenField,
  seenIn,
  type SeenTable,
  takeSeen,
  type Verdict,
} from "./reconcile";
export { seriesFrom } from "./series";
