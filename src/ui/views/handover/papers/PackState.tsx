import { Progress } from "../../../kit/Progress";
import type { PackWork } from "./use-pack";

/** How far papers are that are being made, and what became of them. */
export function PackState({ work, onStop }: { work: PackWork; onStop: () => void }) {
  switch (work.is) {
    case "idle":
      return null;
    case "working":
      return (
        <Progress label="The papers are made" done={work.done} all={work.all} onStop={onStop}>
          <span>
            {work.all === 0 ? "The papers are laid out …" : `${work.done} of ${work.all} ${work.of}`}
          </span>
        </Progress>
      );
    case "made":
      return (
        <p role="status" className="px-4 py-2 text-sound">
          {work.says}
        </p>
      );
    case "refused":
      return (
        <p role="alert" className="px-4 py-2 text-stop">
          {work.sentence}
        </p>
      );
  }
}
