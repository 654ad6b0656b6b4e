import { type KeyBindingPress, matchKeyBindingPress, parseKeybinding } from 'tinykeys';
import type { Command } from '../commands/commands';

/** True where typed letters belong to a field. */
function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement)
    return !['radio', 'checkbox', 'button', 'file'].includes(target.type);
  return target instanceof HTMLTextAreaElement || target.isContentEditable;
}

/** A key as the commands write it, as what may be pressed: a sign may need Shift or not, after the keyboard's layout. */
function pressesOf(key: string): KeyBindingPress[] {
  const binding = key.replace('Ctrl', '$mod');
  const sign = key.length === 1 && !/[a-z0-9]/i.test(key);
  return (sign ? [binding, `Shift+${binding}`] : [binding]).flatMap((b) => parseKeybinding(b));
}

/** True where plain letters press tiles: none of them may mean something of the desk there. */
function ownsLetters(e: KeyboardEvent): boolean {
  const plain = /^[a-z]$/i.test(e.key) && !e.ctrlKey && !e.metaKey && !e.altKey;
  return plain && e.target instanceof HTMLElement && e.target.closest('[data-letters]') !== null;
}

/** The command that a key press means, unless it belongs to the field being typed in. */
export function commandFor(e: KeyboardEvent, commands: readonly Command[]): Command | undefined {
  const meant = commands.find(
    (c) => c.key !== undefined && pressesOf(c.key).some((press) => matchKeyBindingPress(e, press)),
  );
  if (isTyping(e.target)) return meant?.key === 'Ctrl+K' ? meant : undefined;
  return ownsLetters(e) ? undefined : meant;
}
