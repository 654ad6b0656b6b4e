/** Numbers of which it is not known how many there will be. */
export class Filled {
  private data = new Float64Array(1024);
  private n = 0;
  add(v: number): void {
    if (this.n === this.data.length) {
      const more = new Float64Array(2 * this.n);
      more.set(this.data);
      this.data = more;
    }
    this.data[this.n++] = v;
  }
  get all(): Float64Array {
    return this.data.slice(0, this.n);
  }
}
