import type { Response } from 'express';
import type { Presence } from '@core/shelf/protocol';

/**
 * The first news is told at once, what comes within so many ms after it together, and the more desks listen the later: all of them ask then.
 * A desk that said nothing for so long is in no case any more.
 */
const TOGETHER_MS = 150;
const FOR_EACH_MS = 5;
const GONE_MS = 45_000;
/** How often a silent line is used, so that whatever stands between does not cut it. */
const ALIVE_MS = 20_000;

type Listener = { desk: string; res: Response };

/** Lines to desks that listen: that something is new, and who is in which case. What is new they ask for themselves. */
export class NewsLines {
  private readonly listeners = new Set<Listener>();
  private readonly here = new Map<string, { name: string; case: string; at: number }>();
  private pause: NodeJS.Timeout | undefined;
  private untold = false;

  listen(desk: string, res: Response): void {
    // no-transform: nothing on the way may hold lines back to press them
    res.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store, no-transform' });
    res.flushHeaders();
    const listener = { desk, res };
    this.listeners.add(listener);
    res.write('event: new\ndata: {}\n\n');
    res.write(this.presence());
    const alive = setInterval(() => res.write(': \n\n'), ALIVE_MS);
    res.on('close', () => {
      clearInterval(alive);
      this.listeners.delete(listener);
      if (![...this.listeners].some((l) => l.desk === desk)) this.leaves(desk);
    });
  }

  /** Something is on the shelf that was not there before. */
  tell(): void {
    this.untold = true;
    if (!this.pause) this.tellNow();
  }

  /** A desk is in a case now, or in none. */
  isHere(desk: string, name: string, caseId: string | null): void {
    const before = this.here.get(desk)?.case;
    if (caseId === null) this.here.delete(desk);
    else this.here.set(desk, { name, case: caseId, at: performance.now() });
    if (before !== (caseId ?? undefined)) this.tellPresence();
  }

  /** Ends the lines of a desk that is shut out. */
  shutOut(desk: string): void {
    for (const l of this.listeners) if (l.desk === desk) l.res.destroy();
    this.leaves(desk);
  }

  end(): void {
    clearTimeout(this.pause);
    for (const { res } of this.listeners) res.destroy();
  }

  private tellNow(): void {
    this.pause = undefined;
    if (!this.untold) return;
    this.untold = false;
    for (const { res } of this.listeners) res.write('event: new\ndata: {}\n\n');
    this.pause = setTimeout(() => this.tellNow(), TOGETHER_MS + FOR_EACH_MS * this.listeners.size);
  }

  private leaves(desk: string): void {
    if (this.here.delete(desk)) this.tellPresence();
  }

  private tellPresence(): void {
    const said = this.presence();
    for (const { res } of this.listeners) res.write(said);
  }

  private presence(): string {
    const now = performance.now();
    const here: Presence[] = [...this.here]
      .filter(([, h]) => now - h.at < GONE_MS)
      .map(([desk, h]) => ({ desk, name: h.name, case: h.case }));
    return `event: here\ndata: ${JSON.stringify({ here })}\n\n`;
  }
}
