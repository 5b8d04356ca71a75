import { CSV_TYPE, type SiteExport } from "../formats";
import { dueTable } from "../sheets";
import type { Recorded } from "./entry";
import { issuedSheets, issuedTable } from "./issued";
import { allDue } from "./remarks";
import { recordTable } from "./table";

/** The files that leave a site's record, as far as they are tables. */
export const recordExports = (record: readonly Recorded[]): readonly SiteExport[] => [
  {
    what: "Record",
    file: "record.csv",
    type: CSV_TYPE,
    about: "What was done on site: steps, tests, readings, remarks, sheets.",
    make: (index) => ({ is: "table", rows: recordTable(index, record) }),
  },
  {
    what: "Issued sheets",
    file: "sheets.csv",
    type: CSV_TYPE,
    about: "The states of the plan that were issued, who signed them, their check values.",
    make: () => ({ is: "table", rows: issuedTable(issuedSheets(record)) }),
  },
  {
    what: "What falls due",
    file: "due.csv",
    type: CSV_TYPE,
    about: "Days on which support, licences, certificates, forwards, exceptions and open points fall due.",
    make: (index) => ({ is: "table", rows: dueTable(allDue(index, record)) }),
  },
];
