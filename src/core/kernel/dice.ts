/** A source of whole numbers below a bound. */
export type Dice = (below: number) => number;

/** Numbers that are the same for the same seed (Park and Miller's generator). */
export function dice(seed: number): Dice {
  let state = seed;
  return (below) => {
    state = (state * 48_271) % 2_147_483_647;
    return state % below;
  };
}
