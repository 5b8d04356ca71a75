"use client";

import { useId, type HTMLInputTypeAttribute } from "react";

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly type?: HTMLInputTypeAttribute;
  /** What a browser fills in by itself. */ readonly autoComplete?: string;
  readonly maxLength?: number;
  readonly autoFocus?: boolean;
  readonly help?: string;
}

/** A field of a form that is sent as a whole: its label above it, what helps below. */
export function FormField(props: Props) {
  const { label, value, onChange, type = "text", autoComplete = "off", maxLength = 200 } = props;
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="mb-1 block text-13">
        {label}
      </label>
      <input
        id={id}
        type={type}
        value={value}
        maxLength={maxLength}
        autoComplete={autoComplete}
        autoFocus={props.autoFocus === true}
        aria-describedby={props.help === undefined ? undefined : `${id}-help`}
        className="field h-9 w-full"
        onChange={(event) => onChange(event.target.value)}
      />
      {props.help === undefined ? null : (
        <p id={`${id}-help`} className="pt-1 text-12 text-ink2">
          {props.help}
        </p>
      )}
    </div>
  );
}

/** Why a form was refused; nothing where it was not. */
export const FormRefusal = ({ sentence }: { sentence: string | null }) =>
  sentence === null ? null : (
    <p role="alert" className="mb-3 text-13 text-stop">
      {sentence}
    </p>
  );
