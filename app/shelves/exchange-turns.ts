/** What waits here goes to the shelf; or what is new there comes as well. */
export type Turn = 'put' | 'all';

/** Exchanges one after the other: what is asked for while one runs is the next. */
export class ExchangeTurns {
  private next: Turn | undefined;
  private running = false;

  constructor(private readonly job: (turn: Turn) => Promise<void>) {}

  ask(turn: Turn): void {
    if (this.next !== 'all') this.next = turn;
    if (!this.running) void this.run();
  }

  private async run(): Promise<void> {
    this.running = true;
    try {
      for (let turn = this.take(); turn; turn = this.take()) await this.job(turn);
    } finally {
      this.running = false;
    }
  }

  private take(): Turn | undefined {
    const turn = this.next;
    this.next = undefined;
    return turn;
  }
}
