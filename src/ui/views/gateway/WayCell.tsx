import type { Tried } from "@/core/ways-in";

export const VERDICT_WORDS = { works: "works", worksIf: "works if", cannot: "cannot" } as const;
export const VERDICT_COLOURS = { works: "text-sound", worksIf: "text-warn", cannot: "text-ink2" } as const;

/** How one way in fares: what cannot work is hatched like a wall and keeps its reason readable. */
export function WayCell({ tried, chosen }: { tried: Tried | undefined; chosen: boolean }) {
  if (tried === undefined) return <span className="text-ink2">trying …</span>;
  const { verdict, says, line } = tried;
  return (
    <span
      title={`${VERDICT_WORDS[verdict]} by ${line.name}. ${says}`}
      className={`block w-[128px] px-1 py-[2px] text-12 leading-4 whitespace-normal ${
        verdict === "cannot" ? "hatched" : ""
      } ${chosen ? "outline-2 -outline-offset-1 outline-act outline-solid" : ""}`}
    >
      <span className={verdict === "cannot" ? "bg-panel px-1" : ""}>
        <b className={`font-semibold ${VERDICT_COLOURS[verdict]}`}>{VERDICT_WORDS[verdict]}</b>{" "}
        {verdict === "works" ? `by ${line.name}` : <span className="line-clamp-2 inline">{short(says)}</span>}
      </span>
    </span>
  );
}

const MOST = 64;
/** The first words of a reason: all of it stands in the margin. */
const short = (text: string): string =>
  text.length <= MOST ? text : `${text.slice(0, text.lastIndexOf(" ", MOST))} …`;
