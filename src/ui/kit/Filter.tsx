"use client";

/** Words that rows must have to be shown; Escape shows all again. */
export function Filter({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
}) {
  return (
    <input
      type="search"
      aria-label={label}
      placeholder="Filter"
      value={value}
      className="field w-32"
      onChange={(event) => onChange(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === "Escape") onChange("");
      }}
    />
  );
}
