import { thingOf } from '@core/catalogue/effects';
import type { LawCode } from '@core/catalogue/law-codes';

/** "the tensioner of stage 2", from the key of a thing; two keys are a thing and what lies in front of it. */
function nameOf(key: string): string {
  const [id = '', at] = key.split('@');
  const name = thingOf(id)?.name ?? id.replace(/-/g, ' ');
  return at === undefined || at.startsWith('0') ? name : `${name} of stage ${Number(at.split('.')[0]) + 1}`;
}

/** What of hands and matter a step breaks, as a clause. */
export function lawWords(law: LawCode, thing: string): string {
  const [first = '', second = ''] = thing.split(' ');
  const what = nameOf(first);
  const WORDS: Record<LawCode, string> = {
    not_there: `it touches the ${what}, which this drive does not have, or a stage of it is never taken off`,
    already_off: `the ${what} is off, undone or parted already`,
    already_on: `the ${what} is on already`,
    not_loosened: `the ${what} was never undone`,
    no_torque: `it tightens the ${what} without a torque`,
    hidden: `the ${what} lies behind the ${nameOf(second)}, which is on`,
    left_off: `the ${what} came off and is not on`,
    left_loose: `the ${what} was undone and is not tight`,
    not_filled: `the ${what} was drained and is not filled, or has to be drained first`,
    not_level: `the level of the ${what} was not looked at`,
    not_connected: `the ${what} was disconnected and stays so`,
    tool_left: 'a tool or a support is still in',
    turned_locked: 'it turns against a stop or a lock',
    turned_pinned: 'it turns with a tensioner still held back',
    turned_plugged: 'it turns against compression',
    turned_slack: `it turns with the ${what} off or slack`,
    locked_away: 'it locks the crank away from its mark',
    stop_missing: 'the crank is locked before its stop has brought it to rest',
    loop_unlocked: `the ${what} goes off or on while a shaft is free or the crank is off its mark`,
    shaft_free: `it frees or tightens the ${what} while nothing holds the shaft itself, or the drive is slack`,
    lock_as_counterhold: `a locking tool has to hold against the ${what}`,
    plunger_kind: 'this tensioner is not set back or let go that way',
    never_released: 'a tensioner is never let go',
    pin_missing: 'it lets go what nothing holds back',
    slots_unseen: 'the ends of the slots are not looked at while the drive is taut',
    key_let_go: 'the key that holds the eccentric is let go before its bolt is tight',
    cam_alone: 'a shaft is turned alone where a valve can meet a piston, or with the drive on',
    starter: `before the starter the ${what} is not as it has to be`,
    feed_dry: 'the cover goes on before the feed of the tensioner is filled',
    unsealed: `the ${what} goes on without sealant or seal`,
    uncured: 'oil comes to sealant that has not cured',
    odd_turns: 'the turns by hand are no whole number of working cycles',
    not_turned: 'it is looked at before the engine was turned',
    not_looked: `the ${what} are not looked at after the engine was turned`,
    seat_dirty: `the ${what} is not clean`,
    unsupported: `nothing carries the engine while the ${what} is off`,
    phase_back: `it stands under the heading “${first}”, which is over`,
    look_faulted: 'leaving out a look is filed as a fault of the thing looked at',
  };
  return WORDS[law];
}
