"use client";

import { useState } from "react";

/** An address that is written when the field is left; the sentence of `write` says why it is not one. */
export function AddressField({
  label,
  value,
  write,
}: {
  label: string;
  value: string;
  write: (text: string) => string | null;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const done = () => {
    if (typed === null) return;
    const refused = typed === value ? null : write(typed.trim());
    setFault(refused);
    if (refused === null) setTyped(null);
  };
  return (
    <span className="flex items-center gap-1">
      <input
        aria-label={label}
        title={label}
        aria-invalid={fault !== null}
        className="field mono w-44"
        value={typed ?? value}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={done}
        onKeyDown={(event) => {
          if (event.key === "Enter") done();
          if (event.key === "Escape") {
            setTyped(null);
            setFault(null);
          }
        }}
      />
      {fault === null ? null : (
        <span role="alert" className="max-w-64 text-12 text-stop">
          {fault}
        </span>
      )}
    </span>
  );
}
