import type { Fact } from './fact';
import type { Silence } from './silence';
import type { FactSlot } from './slots';
import type { State } from './state';

/** What was read of a state, so that it can be told whether another state would have answered the same. */
export type Reads = { holdsIn(state: State): boolean };

/** A state that notes what is read of it. */
export function watched(state: State): { state: State; reads: Reads } {
  const one = new Map<string, FactSlot | undefined>();
  const ofKey = new Map<string, readonly FactSlot[]>();
  const silent = new Map<string, Silence | undefined>();
  let whole = false;
  let filed: ReadonlySet<string> | undefined;
  const { slots } = state;
  return {
    state: {
      get log() {
        whole = true;
        return state.log;
      },
      get retracted() {
        whole = true;
        return state.retracted;
      },
      slots: {
        get(key) {
          const slot = slots.get(key);
          one.set(key, slot);
          return slot;
        },
        ofKey(observable) {
          const found = slots.ofKey(observable);
          ofKey.set(observable, found);
          return found;
        },
        observables() {
          filed = slots.observables();
          return filed;
        },
        all() {
          whole = true;
          return slots.all();
        },
        silence(key) {
          const found = slots.silence(key);
          silent.set(key, found);
          return found;
        },
        silences() {
          whole = true;
          return slots.silences();
        },
      },
    },
    reads: {
      holdsIn(other) {
        if (other === state) return true;
        if (whole) return false;
        if (filed && !sameKeys(filed, other.slots.observables())) return false;
        for (const [key, slot] of one) if (!sameSlot(slot, other.slots.get(key))) return false;
        for (const [key, found] of silent) if (!sameSilence(found, other.slots.silence(key))) return false;
        for (const [key, found] of ofKey) {
          const now = other.slots.ofKey(key);
          if (now.length !== found.length || !now.every((s, i) => sameSlot(s, found[i]))) return false;
        }
        return true;
      },
    },
  };
}

const sameKeys = (a: ReadonlySet<string>, b: ReadonlySet<string>): boolean =>
  a === b || (a.size === b.size && [...a].every((k) => b.has(k)));

const sameSlot = (a: FactSlot | undefined, b: FactSlot | undefined): boolean =>
  a === b ||
  (a !== undefined && b !== undefined && sameFacts(a.facts, b.facts) && sameFacts(a.rivals, b.rivals));

const sameSilence = (a: Silence | undefined, b: Silence | undefined): boolean =>
  a === b || (a !== undefined && b !== undefined && sameFacts(a.facts, b.facts));

/** Facts never change, so their ids tell; two states of different files are compared by the facts themselves. */
const sameFacts = (a: readonly Fact[], b: readonly Fact[]): boolean =>
  a.length === b.length && a.every((f, i) => f === b[i]);
