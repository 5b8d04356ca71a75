"use client";

import { TriangleAlert } from "lucide-react";
import type { Block, Cell } from "@/core/pack";
import { cabinetPicture } from "@/paper/cabinets";
import { Chip } from "../../tape/Chip";

type Of<I extends Block["is"]> = Extract<Block, { readonly is: I }>;

/** What papers say, on a screen. */
export const HandedBlocks = ({
  blocks,
  photos,
}: {
  blocks: readonly Block[];
  photos: Readonly<Record<string, string>>;
}) => (
  <>
    {blocks.map((block, at) => (
      // Nothing on paper ever moves.
      <One key={at} block={block} photos={photos} />
    ))}
  </>
);

function One({ block, photos }: { block: Block; photos: Readonly<Record<string, string>> }) {
  switch (block.is) {
    case "text":
      return <Words block={block} />;
    case "heading":
      return <h2 className="mt-5 mb-2 text-18">{block.text}</h2>;
    case "subheading":
      return <h3 className="mt-3 mb-1 text-15">{block.text}</h3>;
    case "facts":
      return <Facts block={block} />;
    case "table":
      return <Rows block={block} />;
    case "cabinets":
      return (
        <div className="flex flex-wrap gap-4">
          {block.cabinets.map((cabinet) => (
            <Cabinet key={cabinet.place} cabinet={cabinet} />
          ))}
        </div>
      );
    case "photo":
      return <Photo caption={block.caption} base64={photos[block.photo]} />;
    case "drawing":
      return null;
  }
}

function Words({ block: { text, tone } }: { block: Of<"text"> }) {
  if (tone === "caution")
    return (
      <p className="my-2 flex gap-2 border border-warn bg-warn-wash p-3 text-15">
        <TriangleAlert size={18} className="mt-[2px] flex-none" aria-label="Caution" />
        <span>{text}</span>
      </p>
    );
  return <p className={`my-2 max-w-[72ch] text-15 ${tone === "quiet" ? "text-ink2" : ""}`}>{text}</p>;
}

const Facts = ({ block }: { block: Of<"facts"> }) => (
  <dl className="my-2 grid grid-cols-[minmax(110px,max-content)_1fr] gap-x-4 gap-y-1 text-15">
    {block.rows.map(([name, value], at) => (
      <div key={at} className="contents">
        <dt className="text-ink2">{name}</dt>
        <dd className="whitespace-pre-line [overflow-wrap:anywhere]">{value}</dd>
      </div>
    ))}
  </dl>
);

const Rows = ({ block }: { block: Of<"table"> }) => (
  <div className="my-2 overflow-x-auto">
    <table className="table">
      <thead>
        <tr>
          {block.heads.map((head, column) => (
            // Both ends of a cable have a place: heads repeat.
            <th key={column} scope="col">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {block.rows.map((row, at) => (
          <tr key={at}>
            {row.map((cell, column) => (
              <td key={column} className="whitespace-pre-line">
                <CellWords cell={cell} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  </div>
);

function CellWords({ cell }: { cell: Cell }) {
  if (typeof cell === "string") return cell;
  return (
    <span className="inline-flex flex-wrap items-center gap-1">
      {cell.tapes.map((tape) => (
        <Chip key={`${tape.vid} ${tape.name}`} tape={tape} name={tape.name} />
      ))}
      {cell.text}
    </span>
  );
}

function Cabinet({ cabinet }: { cabinet: Of<"cabinets">["cabinets"][number] }) {
  const { svg, width, height } = cabinetPicture(cabinet);
  const gear = cabinet.racked.map(({ name, from }) => `${name} at ${from}`).join(", ");
  return (
    // eslint-disable-next-line @next/next/no-img-element -- made here, nothing to load or to size
    <img
      src={`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`}
      alt={`${cabinet.place}, ${cabinet.units} units: ${gear}`}
      width={width}
      height={height}
      className="bg-[#fff] p-2"
    />
  );
}

const Photo = ({ caption, base64 }: { caption: string; base64: string | undefined }) => (
  <figure className="my-3">
    {base64 === undefined ? (
      <p className="text-13 text-ink2">The photo can’t be had.</p>
    ) : (
      // eslint-disable-next-line @next/next/no-img-element -- it comes with the page
      <img src={`data:image/jpeg;base64,${base64}`} alt={caption} className="max-h-[420px] max-w-full" />
    )}
    <figcaption className="pt-1 text-13 text-ink2">{caption}</figcaption>
  </figure>
);
