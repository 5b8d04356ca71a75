"use client";

import { removeWishes, writeWish } from "@/core/commands";
import { nameOf, type Wish } from "@/core/plan";
import { WISH_COLUMNS, wishCellText, type Way } from "@/core/planners";
import { WAY_HEADS, wayRepair, type WayIn } from "@/core/ways-in";
import { useUi } from "../../frame/use-ui";
import { TextField } from "../../kit/TextField";
import { useIndex, usePlan } from "../../plan-store/use-plan";
import { VERDICT_COLOURS, VERDICT_WORDS } from "../../views/gateway/WayCell";
import { waysOf } from "../../views/gateway/use-ways";
import { FindingsSection } from "../findings/FindingsSection";
import { RepairChoice } from "../findings/RepairChoice";
import { HistorySection } from "../HistorySection";
import { Caution, MarginHead, Section } from "../parts";

/** One wish to reach something from outside: each way by each line with its reason, and how it is set up. */
export function WishMargin({ id, way }: { id: string; way: Way | null }) {
  const index = useIndex();
  const edit = usePlan((state) => state.edit);
  const select = useUi((state) => state.select);
  const wish = index.plan.wish.get(id);
  if (wish === undefined) return <p className="p-4 text-ink2">That wish is gone; choose another one.</p>;
  const ways = waysOf(index, wish);
  const shown = ways.filter((wayIn) => way === null || wayIn.way === way);
  const remove = () => {
    edit(removeWishes({ wishes: [id] }));
    select(null);
  };
  return (
    <>
      <MarginHead kick={way === null ? "Way in" : WAY_HEADS[way]}>{wish.name}</MarginHead>
      {shown.map((wayIn) => (
        <OneWay key={wayIn.way} wish={wish} way={wayIn} />
      ))}
      {way === null ? null : (
        <p className="px-4 pt-2">
          <button type="button" className="button" onClick={() => select({ what: "wish", id, way: null })}>
            All ways to {nameOf(index, "host", wish.host)}
          </button>
        </p>
      )}
      <Section title="Change">
        {WISH_COLUMNS.map(([column, head]) => (
          <TextField
            key={column}
            label={head}
            value={wishCellText(index, wish, column)}
            write={(text) => edit(writeWish({ wish: id, column, text }))}
          />
        ))}
      </Section>
      <FindingsSection ids={new Set([id])} />
      <Caution head="Cameras and logs.">
        Mind the local privacy law, and work only on networks you are authorised to work on. What is open to
        the internet is found and tried by strangers.
      </Caution>
      <div className="section px-4 pt-3">
        <button type="button" className="button danger" onClick={remove}>
          Remove the wish
        </button>
      </div>
      <HistorySection about={id} />
    </>
  );
}

/** One way: how it fares by each line, and its set-up with a preview. */
function OneWay({ wish, way }: { wish: Wish; way: WayIn }) {
  const repair = wayRepair(wish, way);
  return (
    <Section title={WAY_HEADS[way.way]}>
      <ul className="flex flex-col gap-1 px-4">
        {way.byLine.map(({ line, verdict, says }) => (
          <li key={line.id}>
            <b className={`font-semibold ${VERDICT_COLOURS[verdict]}`}>{VERDICT_WORDS[verdict]}</b> by{" "}
            {line.name}
            {says === "" ? null : <span className="text-ink2">: {says}</span>}
          </li>
        ))}
        {way.byLine.length === 0 ? <li className="text-ink2">There is no line; add one first.</li> : null}
      </ul>
      {repair === null ? null : (
        <div className="px-4 pt-2">
          <RepairChoice repairs={[repair]} recommend={wish.way === "open" && way.best?.verdict === "works"} />
        </div>
      )}
    </Section>
  );
}
