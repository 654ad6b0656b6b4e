import { TestBed } from '@angular/core/testing';
import { HeldPointer } from './held-pointer';

describe('a pointer that is held', () => {
  const down = () => document.body.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
  let held: HeldPointer;
  let done: string[];
  beforeEach(() => {
    held = TestBed.inject(HeldPointer);
    done = [];
  });

  it('holds nothing up where none is down', () => {
    held.afterRelease(() => done.push('at once'));
    expect(done).toEqual(['at once']);
  });

  it('lets what waits be done before the press counts, however it ends, and once', () => {
    const button = document.createElement('button');
    document.body.append(button);
    button.addEventListener('pointerup', () => done.push('press'));
    for (const end of ['pointerup', 'pointercancel', 'dragend']) {
      done = [];
      down();
      held.afterRelease(() => done.push('filed'));
      // a box that loses the focus is no window that does
      button.dispatchEvent(new FocusEvent('blur'));
      expect(done).withContext(end).toEqual([]);
      button.dispatchEvent(new Event(end, { bubbles: true }));
      expect(done[0]).withContext(end).toBe('filed');
      button.dispatchEvent(new Event(end, { bubbles: true }));
      expect(done.filter((d) => d === 'filed').length)
        .withContext(end)
        .toBe(1);
    }
    button.remove();
  });
});
