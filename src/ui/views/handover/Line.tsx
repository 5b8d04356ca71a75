import { useId } from "react";

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly most: number;
  readonly type?: "text" | "date";
}

/** A line of a form, with its label above. */
export function Line({ label, value, onChange, most, type = "text" }: Props) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="text-ink2">
        {label}
      </label>
      <input
        id={id}
        type={type}
        className="field mt-1 block w-full"
        maxLength={most}
        autoComplete="off"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </div>
  );
}
