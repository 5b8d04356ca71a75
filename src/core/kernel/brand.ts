declare const brand: unique symbol;

/** Marks a primitive as one kind of quantity, so that a VID can't be passed where an address is meant. */
export interface Brand<Name extends string> {
  readonly [brand]: Name;
}
