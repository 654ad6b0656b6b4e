import { afterRenderEffect, DestroyRef, type ElementRef, inject, type Signal, signal } from '@angular/core';
import type { NzTableComponent } from 'ng-zorro-antd/table';

/** Height before the room is known, and the least that rows have, px. */
const [AT_FIRST, LEAST] = [320, 160];

/**
 * Height that a table's rows may have in the room of their element below a heading, px; it follows the window. The library's
 * table scrolls and cannot be reached by key: here it can. Called where things are injected.
 */
export function tallRows<T>(
  grid: Signal<ElementRef<HTMLElement>>,
  table: Signal<NzTableComponent<T> | undefined>,
  headPx: number,
): Signal<number> {
  const tall = signal(AT_FIRST);
  const room = new ResizeObserver(([entry]) => {
    tall.set(Math.max(LEAST, Math.floor((entry?.contentRect.height ?? 0) - headPx)));
    // The rows' own room does not follow by itself: it is measured once, and may have been hidden then.
    requestAnimationFrame(() => table()?.cdkVirtualScrollViewport?.checkViewportSize());
  });
  let seen: HTMLElement | undefined;
  afterRenderEffect(() => {
    const element = grid().nativeElement;
    if (element !== seen) room.observe((seen = element));
    const view = table()?.cdkVirtualScrollViewport?.elementRef.nativeElement;
    if (view) view.tabIndex = 0;
  });
  inject(DestroyRef).onDestroy(() => room.disconnect());
  return tall;
}
