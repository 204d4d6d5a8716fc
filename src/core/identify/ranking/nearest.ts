// The nearest of many, while they are looked at.

/** The lowest costs so far: what comes behind the last of them need not be known exactly. */
export class Nearest {
  private costs: number[] = [];
  constructor(private keep: number) {}
  get worst(): number {
    return this.costs.length < this.keep ? Infinity : this.costs[this.keep - 1]!;
  }
  add(cost: number) {
    if (cost >= this.worst) return;
    const at = this.costs.findIndex((c) => c > cost);
    this.costs.splice(at < 0 ? this.costs.length : at, 0, cost);
    if (this.costs.length > this.keep) this.costs.pop();
  }
}
