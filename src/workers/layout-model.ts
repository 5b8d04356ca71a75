/** What is laid out: boxes in groups, and the cables between them. Lengths in pixels of the drawing. */
export interface LayoutBox {
  readonly id: string;
  readonly width: number;
  readonly height: number;
  readonly group: string;
}
export interface LayoutCable {
  readonly id: string;
  readonly from: string;
  readonly to: string;
}
export interface LayoutPoint {
  readonly x: number;
  readonly y: number;
}
/**
 * Where each box stands by its upper left corner, and the corners each cable runs through, from its first box
 * to its second.
 */
export interface Laid {
  readonly places: Readonly<Record<string, LayoutPoint>>;
  readonly routes: Readonly<Record<string, readonly LayoutPoint[]>>;
  /** Cables that share their way with others up to their last piece: only there they are told apart. */
  readonly shared: Readonly<Record<string, true>>;
  readonly width: number;
  readonly height: number;
}
