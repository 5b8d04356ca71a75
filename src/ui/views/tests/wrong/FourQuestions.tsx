import type { FourQuestion, ShownWhy } from "@/core/diagnosis";

const ASKED: Readonly<Record<FourQuestion, string>> = {
  vlan: "Is it plugged in, in the right VLAN, with its address?",
  route: "Is there a route?",
  wall: "Does a wall do its job?",
  "far end": "Is it the far end’s own firewall?",
};

const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** The four questions of the trade to the first reading that is otherwise, answered by simulation. */
export function FourQuestions({ why }: { why: readonly ShownWhy[] }) {
  if (why.length === 0) return null;
  return (
    <section aria-label="Why does it fail?" className="border-hair px-4 py-3 min-[700px]:border-l">
      <h3 className="pb-2 text-13 font-semibold">Why does it fail?</h3>
      <ol className="flex list-decimal flex-col gap-2 pl-5 text-13">
        {why.map(({ about, says, share, candidates }) => (
          <li key={about}>
            <b className="font-semibold">{ASKED[about]}</b>{" "}
            <span className="text-ink2">
              {candidates.length === 0 ? "nothing left points there" : `${percent(share)} of what is left`}
            </span>
            <p>{says}</p>
          </li>
        ))}
      </ol>
    </section>
  );
}
