import { must, num } from '@core/quantity/must';
import { afterNextRender, DestroyRef, ElementRef, inject, type Signal, signal } from '@angular/core';

/**
 * Deals cards out to columns in their order, down and then on, so that the columns are about equally long: the tallest
 * column is as short as it can be. Laid out so by us, because the browser's own columns are laid out whole at every change.
 * @param tall how tall a card is about, in any unit, above zero
 */
export function inColumns<T>(cards: readonly T[], columns: number, tall: (card: T) => number): T[][] {
  const heights = cards.map(tall);
  const total = heights.reduce((sum, h) => sum + h, 0);
  // Every possible height of the tallest column is the sum of a run of cards; the shortest that suffices is taken.
  const runs = heights.flatMap((_, i) => {
    let sum = 0;
    return heights.slice(i).map((h) => (sum += h));
  });
  const most = runs.sort((a, b) => a - b).find((h) => fill(heights, h) <= columns) ?? total;
  const out: T[][] = [];
  let left = 0;
  cards.forEach((card, i) => {
    if (out.length === 0 || left < num(heights, i)) {
      out.push([]);
      left = most;
    }
    must(out.at(-1)).push(card);
    left -= num(heights, i);
  });
  return out;
}

/** Columns that are needed when none may be taller. */
function fill(heights: readonly number[], most: number): number {
  let [columns, left] = [0, 0];
  for (const h of heights) {
    if (h > most) return Infinity;
    if (columns === 0 || left < h) {
      columns++;
      left = most;
    }
    left -= h;
  }
  return columns;
}

/** How many columns of at least so many pixels the host of the component has room for, as it changes. */
export function roomForColumns(leastPx: number): Signal<number> {
  const count = signal(1);
  const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  const put = (width: number) => {
    count.set(Math.max(1, Math.floor(width / leastPx)));
  };
  const watch = new ResizeObserver(([entry]) => put(entry?.contentRect.width ?? 0));
  watch.observe(host);
  // Measured once before anything is painted: nothing moves to another column after it was shown.
  afterNextRender({ read: () => put(host.clientWidth) });
  inject(DestroyRef).onDestroy(() => watch.disconnect());
  return count;
}
