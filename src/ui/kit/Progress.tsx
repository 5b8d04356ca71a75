import type { ReactNode } from "react";

interface Props {
  /** What goes on, for those who hear it. */
  readonly label: string;
  readonly done: number;
  /** 0 as long as nobody knows how much there is. */
  readonly all: number;
  readonly onStop: () => void;
  /** How far it is, in words. */
  readonly children: ReactNode;
}

/** How far long work is, and how to stop it. */
export function Progress({ label, done, all, onStop, children }: Props) {
  return (
    <div role="status" className="flex flex-wrap items-center gap-3 border-b border-hair px-4 py-2 text-13">
      <progress className="h-2 w-64 accent-act" aria-label={label} value={done} max={Math.max(1, all)} />
      {children}
      <button type="button" className="button" onClick={onStop}>
        Stop
      </button>
    </div>
  );
}
