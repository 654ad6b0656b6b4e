/** Moves the focus to the first control of the next field on the page, so that a caliper or one hand can go on. */
export function focusNextField(from: HTMLElement): void {
  const fields = [...document.querySelectorAll<HTMLElement>('main hs-fact-field')];
  const at = fields.findIndex((f) => f.contains(from));
  for (const field of fields.slice(at + 1)) {
    const control = field.querySelector<HTMLElement>('.entry input, .entry textarea');
    if (control) {
      control.focus();
      return;
    }
  }
}
