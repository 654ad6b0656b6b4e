import type { Command } from '../acts/commands';

/** True where typed letters belong to a field. */
export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement)
    return !['radio', 'checkbox', 'button', 'file'].includes(target.type);
  return (
    target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement || target.isContentEditable
  );
}

/** Name of a key press as the commands write it: "f", "?", "Ctrl+K", "Ctrl+Shift+Z". */
export function keyName(e: KeyboardEvent): string {
  const ctrl = e.ctrlKey || e.metaKey;
  if (!ctrl) return e.key.length === 1 ? e.key : '';
  return `Ctrl+${e.shiftKey ? 'Shift+' : ''}${e.key.toUpperCase()}`;
}

/** The command that a key press means, unless it belongs to the field being typed in. */
export function commandFor(e: KeyboardEvent, commands: readonly Command[]): Command | undefined {
  const name = keyName(e);
  if (name === '' || e.altKey) return undefined;
  const typing = isTyping(e.target);
  if (typing && !(name === 'Ctrl+K')) return undefined;
  return commands.find((c) => c.key === name);
}
