import { jacketText, type Jacket as Made, type Tape } from "@/core/sheets";
import { Band, Mark } from "./Band";

const PLUG = 5;
const TIP = 26;
const SLOT = 20;
const RING = 18;
/**
 * Above this many slots rings are narrow and without marks, and a figure at the end says how many there are.
 */
const MARKED_SLOTS = 12;
const NARROW = 8;
const COUNT_BOX = 30;

/** Enough for words where no VLAN has a slot. */
const LEAST_PX = 150;

export const jacketWidth = (slots: number): number =>
  slots <= MARKED_SLOTS ? Math.max(LEAST_PX, markedWidth(slots)) : manyWidth(slots);

const markedWidth = (slots: number): number => PLUG + TIP + slots * SLOT + 4;
const manyWidth = (slots: number): number => PLUG + TIP + Math.min(slots, 34) * NARROW + COUNT_BOX + 4;

/** Where the centre of a slot lies: heads of a table stand above it. */
export const slotCentre = (slot: number): number => PLUG + TIP + 2 + slot * SLOT + RING / 2;

const Gap = ({ x, width, height }: { x: number; width: number; height: number }) => (
  <rect x={x} y={0} width={width} height={height} fill="var(--ground)" />
);

function Ring({ tape, x, height, ghost }: { tape: Tape; x: number; height: number; ghost: boolean }) {
  return (
    <>
      <Gap x={x - 1} width={RING + 2} height={height} />
      {ghost ? (
        <>
          <rect
            x={x + 0.75}
            y={0.75}
            width={RING - 1.5}
            height={height - 1.5}
            fill="var(--ground)"
            stroke="var(--stop)"
            strokeWidth={1.3}
            strokeDasharray="3 2"
          />
          <text
            x={x + RING / 2}
            y={height / 2 + 4.1}
            fill="var(--stop)"
            textAnchor="middle"
            className="mono"
            fontSize={12}
            fontWeight={700}
          >
            {tape.mark}
          </text>
        </>
      ) : (
        <>
          <Band tape={tape} x={x} width={RING} height={height} />
          <Mark tape={tape} x={x + RING / 2} height={height} />
        </>
      )}
    </>
  );
}

function ManyRings({
  made,
  slots,
  width,
  height,
}: {
  made: Made;
  slots: readonly Tape[];
  width: number;
  height: number;
}) {
  const shown = slots.slice(0, 34);
  const at = (vid: number) => PLUG + TIP + 2 + shown.findIndex((slot) => slot.vid === vid) * NARROW;
  const seen = (tape: Tape) => shown.some((slot) => slot.vid === tape.vid);
  return (
    <>
      {made.rings.filter(seen).map((tape) => (
        <g key={tape.vid}>
          <Gap x={at(tape.vid) - 0.5} width={NARROW} height={height} />
          <Band tape={tape} x={at(tape.vid)} width={7} height={height} />
        </g>
      ))}
      {made.missing.filter(seen).map((tape) => (
        <g key={tape.vid}>
          <Gap x={at(tape.vid) - 0.5} width={NARROW} height={height} />
          <rect
            x={at(tape.vid) + 0.75}
            y={0.75}
            width={5.5}
            height={height - 1.5}
            fill="none"
            stroke="var(--stop)"
            strokeWidth={1.5}
            strokeDasharray="3 2"
          />
        </g>
      ))}
      <Gap x={width - COUNT_BOX} width={COUNT_BOX + 1} height={height} />
      <rect
        x={width - COUNT_BOX + 1.5}
        y={0.5}
        width={COUNT_BOX - 2}
        height={height - 1}
        rx={1.5}
        fill="none"
        stroke="var(--tape-edge)"
      />
      <text
        x={width - COUNT_BOX / 2}
        y={height / 2 + 4.1}
        fill="var(--ink)"
        textAnchor="middle"
        className="mono"
        fontSize={12}
      >
        {made.rings.length}
      </text>
    </>
  );
}

function Trunk({
  made,
  slots,
  width,
  height,
}: {
  made: Made;
  slots: readonly Tape[];
  width: number;
  height: number;
}) {
  const many = slots.length > MARKED_SLOTS;
  const at = (tape: Tape) => PLUG + TIP + 2 + slots.findIndex((slot) => slot.vid === tape.vid) * SLOT;
  const seen = (tape: Tape) => slots.some((slot) => slot.vid === tape.vid);
  return (
    <>
      <rect x={PLUG} y={4} width={width - PLUG} height={height - 8} rx={2} fill="var(--jacket)" />
      {made.tip === null ? null : (
        <>
          <Gap x={PLUG} width={TIP} height={height} />
          <Band tape={made.tip} x={PLUG} width={TIP - 1} height={height} />
          <Mark tape={made.tip} x={PLUG + TIP / 2 - 0.5} height={height} />
        </>
      )}
      {many ? (
        <ManyRings made={made} slots={slots} width={width} height={height} />
      ) : (
        <>
          {made.rings.filter(seen).map((tape) => (
            <Ring key={tape.vid} tape={tape} x={at(tape)} height={height} ghost={false} />
          ))}
          {made.missing.filter(seen).map((tape) => (
            <Ring key={tape.vid} tape={tape} x={at(tape)} height={height} ghost />
          ))}
        </>
      )}
    </>
  );
}

interface Size {
  readonly width: number;
  readonly height: number;
}

/** What is drawn instead of a cable where there is none: an outline, and why in a word where there is room. */
function Empty({ width, height, word, at, dashed }: Size & { word: string; at: number; dashed?: boolean }) {
  return (
    <>
      <rect
        x={PLUG + 0.5}
        y={0.5}
        width={width - PLUG - 1}
        height={height - 1}
        rx={1.5}
        fill="none"
        stroke="var(--rule)"
        strokeDasharray={dashed === true ? "4 3" : undefined}
      />
      {width > 90 ? (
        <text x={at} y={height / 2 + 4.2} fill="var(--ink2)" fontSize={12}>
          {word}
        </text>
      ) : null}
    </>
  );
}

function Inside({
  made,
  slots,
  width,
  height,
  offLabel,
}: Size & { made: Made; slots: readonly Tape[]; offLabel: string }) {
  const { mode, tip } = made;
  if (mode === "undecided" && made.missing.length === 0)
    return <Empty width={width} height={height} word="to decide" at={PLUG + 8} dashed />;
  const plug = (
    <rect x={0.5} y={height / 2 - 2.5} width={PLUG} height={5} fill="none" stroke="var(--tape-edge)" />
  );
  if (mode === "routed" || mode === "plain")
    return (
      <>
        {plug}
        <Empty width={width} height={height} word={jacketText(made)} at={PLUG + 8} />
      </>
    );
  if (mode === "off")
    return (
      <>
        {plug}
        <Empty width={width} height={height} word={offLabel} at={PLUG + TIP + 4} />
        <path d={`M${PLUG + 5} ${height - 1} L${PLUG + TIP - 5} 1`} stroke="var(--ink2)" strokeWidth={1.4} />
      </>
    );
  return (
    <>
      {plug}
      {(mode === "access" || mode === "dataVoice") && tip !== null ? (
        <Sleeve made={made} tip={tip} slots={slots} width={width} height={height} />
      ) : (
        <Trunk made={made} slots={slots} width={width} height={height} />
      )}
    </>
  );
}

function Sleeve({
  made,
  tip,
  slots,
  width,
  height,
}: {
  made: Made;
  tip: Tape;
  slots: readonly Tape[];
  width: number;
  height: number;
}) {
  const voice = made.mode === "dataVoice" ? made.rings[0] : undefined;
  const slot = voice === undefined ? -1 : slots.findIndex((s) => s.vid === voice.vid);
  const x = PLUG + TIP + 2 + Math.max(0, slot) * SLOT;
  const shownVoice = voice !== undefined && slot >= 0 && slots.length <= MARKED_SLOTS;
  const nameAt = shownVoice ? x + SLOT + 6 : PLUG + TIP + 4;
  return (
    <>
      <Band tape={tip} x={PLUG} width={width - PLUG} height={height} />
      <Mark tape={tip} x={PLUG + TIP / 2} height={height} />
      {shownVoice ? (
        <>
          <rect x={x - 4} y={-1} width={RING + 8} height={height + 2} fill="var(--ground)" />
          <rect x={x - 4} y={4} width={RING + 8} height={height - 8} fill="var(--jacket)" />
          <Ring tape={voice} x={x} height={height} ghost={false} />
        </>
      ) : null}
      {width - nameAt > 40 ? (
        <text
          x={nameAt}
          y={height / 2 + 4.2 - (tip.tracer === null ? 0 : 1.4)}
          fill={`var(--tape-${tip.base}-on)`}
          fontSize={12}
          fontWeight={500}
        >
          {tip.name}
        </text>
      ) : null}
    </>
  );
}

/**
 * A cable in a port, seen from the side: tip, sleeve, rings in their fixed slots, or crossed out, or dashed.
 */
export function Jacket({
  made,
  slots,
  height = 16,
  width = jacketWidth(slots.length),
  offLabel = "off",
}: {
  made: Made;
  slots: readonly Tape[];
  height?: number;
  width?: number;
  offLabel?: string;
}) {
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={jacketText(made)}
      className="inline-block align-middle overflow-visible"
    >
      <Inside made={made} slots={slots} width={width} height={height} offLabel={offLabel} />
    </svg>
  );
}
