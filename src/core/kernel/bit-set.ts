/** A fixed number of bits in 32-bit words. Shifts count modulo 32 and answer signed, hence `>>> 0`. */
export class BitSet {
  readonly words: Uint32Array;
  readonly size: number;

  constructor(size: number) {
    this.size = size;
    this.words = new Uint32Array(Math.ceil(size / 32));
  }

  add(bit: number): void {
    const word = bit >>> 5;
    this.words[word] = ((this.words[word] ?? 0) | (1 << (bit & 31))) >>> 0;
  }

  has(bit: number): boolean {
    return (((this.words[bit >>> 5] ?? 0) >>> (bit & 31)) & 1) === 1;
  }

  /** The set bits, ascending. */
  *[Symbol.iterator](): Generator<number> {
    for (let word = 0; word < this.words.length; word += 1) {
      let rest = this.words[word] ?? 0;
      while (rest !== 0) {
        const lowest = 31 - Math.clz32(rest & -rest);
        yield word * 32 + lowest;
        rest = (rest & (rest - 1)) >>> 0;
      }
    }
  }
}
