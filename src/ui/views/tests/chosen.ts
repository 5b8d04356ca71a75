/** The reading that is open, and whether the hand goes on with it from the one before. */
export interface Chosen {
  readonly id: string | null;
  readonly goesOn: boolean;
}
