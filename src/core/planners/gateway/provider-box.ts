import { prefixesOverlap } from "../../address";
import { BLANK_HOST, type Host, type Line, type PlanEdits, type Segment } from "../../plan";
import { nextFreeFor } from "../addressing/next-free";
import { indexOf } from "../drafted";
import { asLabel } from "../register/host-label";
import type { EditContext, Refusal } from "../planner";

/** Where the provider's box stands. */
export type Arrangement = "bridged" | "bypassed" | "inFront" | "behind";

/** Each arrangement with its name, why one wants it, and its price. */
export const ARRANGEMENTS: readonly {
  readonly arrangement: Arrangement;
  readonly name: string;
  readonly why: string;
  readonly price: string;
}[] = [
  {
    arrangement: "bridged",
    name: "bridged",
    why: "Our gateway gets the outside address itself, and everything is translated once.",
    price: "What only works at the box stops, and so does its own wireless.",
  },
  {
    arrangement: "bypassed",
    name: "bypassed",
    why: "The box is taken off: our gateway takes the line with its tag and login.",
    price: "The provider has to allow it, and what only works at the box stops.",
  },
  {
    arrangement: "inFront",
    name: "in front, sending everything on",
    why: "The box stays as it is and sends on to our gateway whatever comes in.",
    price: "Everything is translated twice (double NAT), and there are two devices to look after.",
  },
  {
    arrangement: "behind",
    name: "kept behind our gateway",
    why: "Our gateway takes the line, and what is locked to the box goes on working behind it.",
    price: "The box needs a fixed address, a port with the tag it wants, and its traffic put first.",
  },
];

/** The box as a device of the register, where it hangs behind our gateway. */
const boxName = (line: Line): string => asLabel(`${line.name} box`);

/** The segment that suits the box best: that of the phones, whose service it mostly carries, else of people. */
function homeFor(edits: PlanEdits): Segment | undefined {
  const inside = edits
    .all("segment")
    .filter(({ tunnel, prefixes4 }) => tunnel === null && prefixes4.length > 0);
  return (["voice", "people", "other"] as const)
    .map((purpose) => inside.find((segment) => segment.purpose === purpose))
    .find((segment) => segment !== undefined);
}

function keepBehind({ edits, ids }: Omit<EditContext, "index">, line: Line): Refusal {
  const segment = homeFor(edits);
  if (segment === undefined) return "There is no segment that the box could hang in; add one first.";
  const clash = segment.prefixes4.find(
    (prefix) => line.boxPrefix !== null && prefixesOverlap(prefix, line.boxPrefix),
  );
  if (clash !== undefined)
    return (
      `The range inside the box meets that of ${segment.name}: give ${segment.name} another subnet first, ` +
      "the box's own is the provider's."
    );
  const known = edits.all("host").find(({ name }) => name === boxName(line));
  const address = known?.ipv4 ?? nextFreeFor(indexOf(edits), segment, "typed");
  if (address === null) return `${segment.name} has no free address outside its pool for the box.`;
  const box: Host = known ?? {
    ...BLANK_HOST,
    id: ids(),
    name: boxName(line),
    kind: "other",
    segment: segment.id,
  };
  edits.put("host", {
    ...box,
    manner: "typed",
    ipv4: address,
    notes:
      box.notes === ""
        ? `The provider's box of ${line.name}; locked to it: ${line.locked || "nothing known"}`
        : box.notes,
  });
  const pins = line.pins.filter((pin) => pin.what !== "host" || pin.host !== box.id);
  edits.patch("line", line.id, {
    providerBox: "none",
    boxForwards: false,
    pins: [...pins, { what: "host", host: box.id, orElse: "stays" }],
  });
  return null;
}

/** Sets the provider's box of a line up in one of its arrangements; a sentence why not. */
export function arrangeBox(
  context: Omit<EditContext, "index">,
  { line: id, arrangement }: { readonly line: string; readonly arrangement: Arrangement },
): Refusal {
  const line = context.edits.need("line", id);
  switch (arrangement) {
    case "bridged":
      if (line.providerBox === "cannotBridge")
        return `The box of ${line.name} can't bridge; let it stand in front, or keep it behind.`;
      context.edits.patch("line", id, { providerBox: "bridges", boxForwards: false });
      return null;
    case "bypassed":
      context.edits.patch("line", id, { providerBox: "none", boxForwards: false });
      return null;
    case "inFront":
      context.edits.patch("line", id, {
        providerBox: line.providerBox === "cannotBridge" ? "cannotBridge" : "routes",
        boxForwards: true,
      });
      return null;
    case "behind":
      return keepBehind(context, line);
  }
}
