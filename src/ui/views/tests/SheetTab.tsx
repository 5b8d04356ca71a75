"use client";

import { clsx } from "clsx";
import { useMemo, useState } from "react";
import { expectedText, type TestSheet } from "@/core/commissioning";
import type { PlanIndex } from "@/core/plan";
import { isToTake, proofOf, proofTable, TEST_STATE_WORDS, type Proof, type TestState } from "@/core/records";
import { counted } from "@/core/repairs";
import { csv, CSV_TYPE, download, fileName } from "../../kit/download";
import { RowList, type ListRow } from "../../kit/RowList";
import { Segmented } from "../../kit/Segmented";
import { useRecord } from "../../record-store/use-record";
import type { Chosen } from "./chosen";
import { FactList } from "./FactList";
import { OpenTest } from "./OpenTest";
import { PlaceChoice, placesOf } from "./PlaceChoice";

const ROW = 46;
const COLUMNS = "grid-cols-[20px_minmax(0,1fr)]";
type Way = "open" | "otherwise" | "all" | "facts";

interface Props {
  readonly index: PlanIndex;
  readonly sheet: TestSheet;
  readonly onWrong: () => void;
}

const SHEET = "flex min-h-0 min-w-0 flex-1 flex-col max-[900px]:h-full";

/** The sheet beside what was read so far. */
export function SheetTab({ index, sheet, onWrong }: Props) {
  const { record } = useRecord();
  const proof = useMemo(() => proofOf(index, sheet, record), [index, sheet, record]);
  const [way, setWay] = useState<Way>("open");
  const [{ id: chosen, goesOn }, setChosen] = useState<Chosen>({ id: null, goesOn: false });
  const [wanted, setWanted] = useState<string | null>(null);
  const places = useMemo(() => placesOf(proof), [proof]);
  // A place that the plan no longer has hides nothing.
  const place = places.some(([name]) => name === wanted) ? wanted : null;
  const listed = useMemo(
    () => listedIn(proof, way).filter(({ test }) => place === null || test.place === place),
    [proof, way, place],
  );
  const count = (of: (state: TestState) => boolean) => proof.tests.filter(({ state }) => of(state)).length;
  const at = proof.tests.findIndex(({ test }) => test.id === chosen);
  return (
    <>
      <div className="flex flex-none flex-wrap items-center gap-3 border-b border-hair px-4 py-2 print:hidden">
        <Segmented
          label="Readings shown"
          value={way}
          choices={[
            ["open", `To take ${count(isToTake)}`],
            ["otherwise", `Otherwise ${count((state) => state === "otherwise")}`],
            ["all", `All ${proof.tests.length}`],
            ["facts", "What is proven"],
          ]}
          onChoose={setWay}
        />
        {way === "facts" ? null : <PlaceChoice places={places} place={place} onChoose={setWanted} />}
        <span className="push max-[600px]:hidden" />
        <button
          type="button"
          className="button"
          onClick={() =>
            download(fileName(index.plan.site.name, "tests.csv"), CSV_TYPE, csv(proofTable(index, proof)))
          }
        >
          Save as CSV
        </button>
      </div>
      {way === "facts" ? (
        <FactList
          proof={proof}
          onOpen={(id) => {
            setWay("all");
            setWanted(null);
            setChosen({ id, goesOn: false });
          }}
        />
      ) : (
        <div className="flex min-h-0 flex-1 print:hidden max-[900px]:block">
          <div className={clsx(SHEET, at >= 0 && "max-[900px]:hidden")}>
            {listed.length === 0 ? (
              <p role="status" className="p-4 text-15 text-sound">
                {way === "open" ? "✓ Every reading is taken" : "Nothing was read otherwise"}
                {place === null ? "" : ` at ${place === "" ? "no place" : place}`}.
              </p>
            ) : (
              <RowList
                label="Readings"
                count={listed.length}
                height={ROW}
                columns={COLUMNS}
                at={placeOf(listed, chosen)}
                choose={(row) => setChosen({ id: listed[row]?.test.id ?? null, goesOn: false })}
                row={(row) => rowOf(listed, row)}
              />
            )}
          </div>
          {at < 0 ? null : (
            <OpenTest
              index={index}
              proof={proof}
              at={at}
              listed={listed}
              goesOn={goesOn}
              onChoose={setChosen}
              onWrong={onWrong}
            />
          )}
        </div>
      )}
      <PrintedTests index={index} proof={proof} />
    </>
  );
}

const placeOf = (listed: Proof["tests"], id: string | null): number | null => {
  const at = listed.findIndex(({ test }) => test.id === id);
  return at < 0 ? null : at;
};

function listedIn({ tests }: Proof, way: Way): Proof["tests"] {
  if (way === "open") return tests.filter(({ state }) => isToTake(state));
  if (way === "otherwise") return tests.filter(({ state }) => state === "otherwise");
  return tests;
}

const SIGNS: Readonly<Record<TestState, readonly [sign: string, colour: string]>> = {
  open: ["·", "text-ink2"],
  anew: ["↻", "text-warn"],
  expected: ["✓", "text-sound"],
  otherwise: ["✕", "text-stop"],
  cannot: ["–", "text-warn"],
};

function rowOf(listed: Proof["tests"], at: number): ListRow | null {
  const standing = listed[at];
  if (standing === undefined) return null;
  const { test, state } = standing;
  const [sign, colour] = SIGNS[state];
  const isFirst = listed[at - 1]?.test.place !== test.place;
  const place = test.place === "" ? "no place" : test.place;
  return {
    key: test.id,
    words: `${test.place === "" ? "" : `${test.place}: `}${test.at}. ${test.does} ${TEST_STATE_WORDS[state]}`,
    content: (
      <>
        <b className={`text-center ${colour}`}>{sign}</b>
        <span className="min-w-0 py-1">
          <span className="flex gap-2">
            <b className="min-w-0 flex-1 truncate font-semibold" title={test.at}>
              {test.at}
            </b>
            <span className={`text-12 ${isFirst ? "" : "text-ink2"}`}>{place}</span>
          </span>
          <span className="block truncate text-12 text-ink2" title={test.does}>
            {test.does}
          </span>
        </span>
      </>
    ),
  };
}

/** As many readings are kept ready for paper: a table of many thousands would slow every other step. */
const MOST_PRINTED = 3000;

/** The whole sheet on paper, with room to write. */
function PrintedTests({ index, proof }: { index: PlanIndex; proof: Proof }) {
  if (proof.tests.length > MOST_PRINTED)
    return (
      <p className="hidden print:block">
        {counted(proof.tests.length, "reading", "readings")}: save them as CSV and print that.
      </p>
    );
  return (
    <table className="hidden w-full text-12 print:table">
      <thead>
        <tr>
          {["Place", "At", "Do", "Has to be read", "Read"].map((head) => (
            <th key={head} scope="col" className="text-left">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {proof.tests.map(({ test, state, latest }) => (
          <tr key={test.id} className="break-inside-avoid border-t border-hair align-top">
            <td>{test.place}</td>
            <td>{test.at}</td>
            <td>{test.does}</td>
            <td>{expectedText(index, test.expected)}</td>
            <td className="min-w-24">{latest === null ? "" : `${TEST_STATE_WORDS[state]}; ${latest.by}`}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
