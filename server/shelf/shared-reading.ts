/**
 * One reading of the database for all who ask at the same time: who asks while one runs gets the next, which begins after they asked, so that
 * nobody is given what was true before.
 */
export class SharedReading<T> {
  private running: Promise<T> | undefined;
  private next: Promise<T> | undefined;

  constructor(private readonly read: () => Promise<T>) {}

  ask(): Promise<T> {
    if (!this.running) return this.begin();
    this.next ??= this.running
      .then(
        () => undefined,
        () => undefined,
      )
      .then(() => {
        this.next = undefined;
        return this.begin();
      });
    return this.next;
  }

  private begin(): Promise<T> {
    const now = this.read();
    this.running = now;
    const over = () => {
      if (this.running === now) this.running = undefined;
    };
    now.then(over, over);
    return now;
  }
}
