import { must, nth } from '@core/quantity/must';
import faultsOfLooking from './data/faults-of-looking.json';
import type { Stage } from '@core/drive/stages';
import type { Effect } from './effects';
import type { PlacedStep } from './expand-procedure';
import { driveForHands } from './hands';
import type { BrokenLaw } from './law-codes';
import { PartLaws } from './part-laws';
import { STEP_PHASES } from './procedure';

/** Faults that say that something was not looked at, and nothing of the thing looked at. */
const NOT_LOOKED: ReadonlySet<string> = new Set(faultsOfLooking);

/** True for a procedure that says what its steps do: only such a one can be judged. */
export const saysEffects = (steps: readonly Pick<PlacedStep, 'does'>[]): boolean =>
  steps.some((s) => (s.does?.length ?? 0) > 0);

/**
 * Laws that steps break, done in this order on this drive: what is off, loose, empty, apart, locked and pinned is followed
 * from step to step. Empty for a sheet that a fitter can work by; also for one that says nothing of its effects.
 */
export function brokenLaws(steps: readonly PlacedStep[], stages: readonly Stage[]): BrokenLaw[] {
  if (!saysEffects(steps)) return [];
  return new Simulation(driveForHands(stages), steps).run();
}

/** A sheet followed from its first step to its last: locks, turns, plungers and the starter beside the laws of parts. */
class Simulation extends PartLaws {
  private cranked = false;
  private started = false;

  run(): BrokenLaw[] {
    let phase = 0;
    for (const step of this.steps) {
      this.step = step;
      const at = step.phase ? STEP_PHASES.indexOf(step.phase) : phase;
      if (at < phase) this.breaks('phase_back', must(step.phase));
      phase = Math.max(phase, at);
      this.looks();
      const before = this.keyOn;
      for (const effect of step.does ?? []) this.effect(effect);
      // Nothing but the key holds a manual eccentric until its bolt is tight.
      if (before !== undefined && this.keyOn === before) this.breaks('key_let_go', 'tensioner');
    }
    this.atEnd();
    return this.out;
  }

  /** An inspection that was left out makes no fault of what would have been looked at. */
  private looks(): void {
    const { does = [], faults } = this.step;
    const only = does.length > 0 && does.every(([act]) => act === 'looked' || act === 'measured');
    if (only && faults?.skipped !== undefined && !NOT_LOOKED.has(faults.skipped))
      this.breaks('look_faulted', faults.skipped);
  }

  private effect(e: Effect): void {
    switch (e[0]) {
      case 'turned':
        if (e[1] === 'crank') this.turnCrank(e[2]);
        else this.turnCams();
        return;
      case 'locked':
      case 'unlocked':
        this.lock(e);
        return;
      case 'cranked':
      case 'started':
        this.starter(e[0]);
        return;
      case 'pinned':
        this.pin(e[2] ?? '');
        return;
      case 'released':
        this.release(e[2] ?? '');
        return;
      default:
        this.onThing(e);
    }
  }

  private turnCrank(to: 'mark' | 'turns' | 'clear' | 'return'): void {
    const { now, drive } = this;
    const timedOff = drive.stages.some((s, i) => s.has.has('timed') && now.off.has(`loop@${i}`));
    if (now.lockedCrank || now.stop || (now.cams !== undefined && !timedOff))
      this.breaks('turned_locked', 'crank');
    if (!now.off.has('plugs')) this.breaks('turned_plugged', 'plugs');
    if (to === 'clear' || to === 'return') {
      if (!timedOff) this.breaks('cam_alone', 'crank');
      now.crank = to === 'clear' ? 'clear' : 'mark';
      return;
    }
    if (now.pinned.size > 0) this.breaks('turned_pinned', 'crank');
    for (const i of drive.stages.keys())
      if (now.off.has(`loop@${i}`) || !now.taut.has(i)) this.breaks('turned_slack', `loop@${i}`);
    now.crank = 'mark';
    if (to !== 'turns') return;
    this.turned = true;
    if (this.step.turns === undefined || this.step.turns % 2 !== 0) this.breaks('odd_turns', 'crank');
    for (const a of typeof this.step.proof === 'object' ? (this.step.proof.asks ?? []) : [])
      if (a.quantity === 'count' && a.every !== 2) this.breaks('odd_turns', a.id);
  }

  private turnCams(): void {
    const { now, drive } = this;
    if (now.crank !== 'clear' && drive.has.has('valves_meet')) this.breaks('cam_alone', 'cams');
    if (now.cams !== undefined) this.breaks('turned_locked', 'cams');
    if (drive.stages.some((s, i) => s.has.has('timed') && !now.off.has(`loop@${i}`)))
      this.breaks('cam_alone', 'loop');
  }

  private lock(e: Effect): void {
    const { now } = this;
    const on = e[0] === 'locked';
    if (e[1] === 'stop') now.stop = on;
    if (e[1] === 'crank') {
      if (on && now.crank !== 'mark') this.breaks('locked_away', 'crank');
      if (on && !now.stop && !this.turned) this.breaks('stop_missing', 'crank');
      now.lockedCrank = on;
    }
    if (e[1] !== 'cams') return;
    if (on) now.cams = e[2] === 'shafts' ? 'shafts' : 'sprockets';
    else delete now.cams;
  }

  private pin(how: string): void {
    const { now, drive, step } = this;
    const { stage } = step.spot;
    const back = nth(drive.stages, stage).back;
    if (back === undefined) this.breaks('not_there', 'plunger');
    // A new one comes held back; one that is set back is set back as its kind asks.
    else if (how !== 'new' && (back === 'never' || how !== back)) this.breaks('plunger_kind', how);
    now.pinned.add(stage);
    now.taut.delete(stage);
  }

  private release(how: string): void {
    const { now, drive, step } = this;
    const { stage } = step.spot;
    const back = nth(drive.stages, stage).back;
    const right = back === 'screwed' ? 'screw' : back === 'never' ? 'press' : 'pin';
    if (how !== right) this.breaks('plunger_kind', how);
    if (!now.pinned.delete(stage)) this.breaks('pin_missing', `tensioner@${stage}`);
    for (const part of ['loop', 'arm', 'rail', 'tensioner'])
      if (now.off.has(`${part}@${stage}`)) this.breaks('left_off', `${part}@${stage}`);
    now.taut.add(stage);
  }

  /** Before the starter: all on that turns or hides, fluids in and level, no tool left, ignition and injection as they must be. */
  private starter(how: 'cranked' | 'started'): void {
    const { now } = this;
    if (how === 'cranked') this.cranked = true;
    else this.started = true;
    if (how === 'started' && this.everEmpty && !this.cranked) this.breaks('feed_dry', 'oil');
    if (now.apart.has('battery')) this.breaks('starter', 'battery');
    for (const link of ['ignition', 'injection'])
      if (now.apart.has(link) !== (how === 'cranked')) this.breaks('starter', link);
    for (const key of ['oil', 'coolant']) {
      if (now.empty.has(key)) this.breaks('not_filled', key);
      else if (now.unlevelled.has(key)) this.breaks('not_level', key);
    }
    for (const key of now.off)
      if (how === 'started' || (key !== 'plugs' && key !== 'aux-belt')) this.breaks('left_off', key);
    for (const key of now.loose)
      if (how === 'started' || (key !== 'plugs' && key !== 'aux-belt')) this.breaks('left_loose', key);
    if (now.stop || now.lockedCrank || now.cams !== undefined) this.breaks('tool_left', 'locks');
  }

  private atEnd(): void {
    const { now, drive } = this;
    for (const key of now.off) this.breaks('left_off', key);
    for (const key of now.loose) this.breaks('left_loose', key);
    for (const key of now.empty) this.breaks('not_filled', key);
    for (const key of now.unlevelled) this.breaks('not_level', key);
    for (const key of now.apart) this.breaks('not_connected', key);
    for (const key of now.aids) this.breaks('tool_left', key);
    if (now.stop || now.lockedCrank || now.cams !== undefined) this.breaks('tool_left', 'locks');
    for (const stage of now.pinned) this.breaks('never_released', `tensioner@${stage}`);
    for (const [key, t] of now.times)
      if (t.removed > 1 || t.fitted > 1) this.breaks(t.removed > 1 ? 'already_off' : 'already_on', key);
    if (!this.everOff.has('loop@0')) return;
    for (const key of ['tools', 'marks']) if (!this.looked.has(key)) this.breaks('not_looked', key);
    if (!this.started) this.breaks('starter', 'engine');
    drive.stages.forEach((_, i) => {
      if (!this.everOff.has(`loop@${i}`)) this.breaks('not_there', `loop@${i}`);
    });
  }
}
