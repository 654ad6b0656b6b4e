/** What a slider's handle says of itself: the library's bears no role, no name and no value. */
export function sayHandle(
  host: HTMLElement,
  says: { label: string; min: number; max: number; now: number; text: string },
): void {
  const handle = host.querySelector('.ant-slider-handle');
  for (const [name, v] of Object.entries({
    role: 'slider',
    'aria-label': says.label,
    'aria-valuemin': says.min,
    'aria-valuemax': says.max,
    'aria-valuenow': says.now,
    'aria-valuetext': says.text,
  }))
    handle?.setAttribute(name, String(v));
}
