"use client";

import { isToTake, type Proof } from "@/core/records";
import { Combo } from "../../kit/Combo";

/** A place with how much is to be taken there; the empty one is where nobody said. */
type Place = readonly [name: string, count: number];

const EVERYWHERE = "everywhere";

/** The places of a site, in the order of the walk. */
export function placesOf({ tests }: Proof): Place[] {
  const places = new Map<string, number>();
  for (const { test, state } of tests)
    places.set(test.place, (places.get(test.place) ?? 0) + (isToTake(state) ? 1 : 0));
  return [...places];
}

/** Which place is looked at: two people part the places between them. */
export function PlaceChoice({
  places,
  place,
  onChoose,
}: {
  places: readonly Place[];
  /** Null for all of them. */
  place: string | null;
  onChoose: (place: string | null) => void;
}) {
  if (places.length < 2) return null;
  return (
    <Combo
      label="Place"
      value={place === null ? EVERYWHERE : `at ${place}`}
      choices={[
        { value: EVERYWHERE, label: "everywhere" },
        ...places.map(([name, count]) => ({
          value: `at ${name}`,
          label: name === "" ? "no place" : name,
          detail: `${count} to take`,
        })),
      ]}
      onChoose={(value) => onChoose(value === EVERYWHERE ? null : value.slice(3))}
      empty="everywhere"
    />
  );
}
