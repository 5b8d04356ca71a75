"use client";

import { FIELD_WORDS, IMPORT_FIELDS, type ImportField, type Mapping, type ReadTable } from "@/core/register";

const MOST_SHOWN = 100;

interface Props {
  readonly rows: readonly (readonly string[])[];
  readonly mapping: Mapping;
  readonly read: ReadTable;
  readonly setMapping: (mapping: Mapping) => void;
}

/** The rows as they are read, the bad ones first, with a choice of what each column holds. */
export function RowsRead({ rows, mapping, read, setMapping }: Props) {
  const count = read.good.length + read.bad.length;
  return (
    <div className="min-h-0 flex-1 overflow-auto" tabIndex={-1}>
      <table className="table close still" aria-label="Rows read">
        <thead>
          <tr>
            <th scope="col">Row</th>
            <th scope="col" className="min-w-56">
              Read as
            </th>
            {mapping.fields.map((field, column) => (
              <th key={column} scope="col">
                <ColumnChoice
                  column={column}
                  field={field}
                  choose={(chosen) => setMapping(withField(mapping, column, chosen))}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {read.bad.slice(0, MOST_SHOWN).map(({ row, problems, cells }) => (
            <tr key={`bad ${row}`} className="text-stop">
              <td className="mono">{row}</td>
              <td className="!whitespace-normal py-1">{problems.join(" ")}</td>
              <Cells mapping={mapping} cells={cells} />
            </tr>
          ))}
          {read.good.slice(0, MOST_SHOWN).map(({ row, known, changed }) => (
            <tr key={`good ${row}`}>
              <td className="mono">{row}</td>
              <td className="text-ink2">
                {known === null
                  ? "new"
                  : `changes ${changed.map((field) => FIELD_WORDS[field].toLowerCase()).join(", ")}`}
              </td>
              <Cells mapping={mapping} cells={rows[row - 1] ?? []} />
            </tr>
          ))}
          {count <= 2 * MOST_SHOWN ? null : (
            <tr>
              <td colSpan={mapping.fields.length + 2} className="text-ink2">
                {count} rows in all; the first of each kind are shown
              </td>
            </tr>
          )}
        </tbody>
      </table>
    </div>
  );
}

/** The mapping with a column that holds a field; the column that held it before is left out. */
const withField = (mapping: Mapping, column: number, field: ImportField | null): Mapping => ({
  ...mapping,
  fields: mapping.fields.map((mapped, i) => {
    if (i === column) return field;
    return mapped === field ? null : mapped;
  }),
});

function Cells({ mapping, cells }: { mapping: Mapping; cells: readonly string[] }) {
  return mapping.fields.map((_, i) => (
    <td key={i} className="mono">
      {cells[i] ?? ""}
    </td>
  ));
}

function ColumnChoice({
  column,
  field,
  choose,
}: {
  column: number;
  field: ImportField | null;
  choose: (field: ImportField | null) => void;
}) {
  return (
    <select
      aria-label={`Column ${column + 1} holds`}
      className="field !h-6 w-24 !px-1"
      value={field ?? ""}
      onChange={(event) => choose((event.target.value || null) as ImportField | null)}
    >
      <option value="">left out</option>
      {IMPORT_FIELDS.map((field) => (
        <option key={field} value={field}>
          {FIELD_WORDS[field]}
        </option>
      ))}
    </select>
  );
}
