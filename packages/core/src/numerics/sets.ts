/** Sets of numbers that are joined. */
export class Sets {
  private readonly parent: number[];
  constructor(count: number) {
    this.parent = Array.from({ length: count }, (_, i) => i);
  }
  /** A number more, in a set of its own. */
  add = (): number => this.parent.push(this.parent.length) - 1;
  /** The set of a number, by one of its members. */
  of(i: number): number {
    while (this.parent[i] !== i) i = this.parent[i] = this.parent[this.parent[i]];
    return i;
  }
  join = (i: number, j: number): void => void (this.parent[this.of(i)] = this.of(j));
}
