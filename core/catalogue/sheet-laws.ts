import type { Stage } from '@core/drive/stages';
import { type Effect, heldBy, type StepThing, thingOf } from './effects';
import type { PlacedStep } from './expand-procedure';
import { asFoundByHands, type DriveForHands, driveForHands, type Hands, inFront, touched } from './hands';
import type { BrokenLaw, LawCode } from './law-codes';
import { PHASES } from './procedure';

/** Faults that say that something was not looked at, and nothing of the thing looked at. */
const NOT_LOOKED = new Set(['VER-LOOK', 'CMP-MISS', 'REC-MISS', 'CNT-LINK', 'VER-TURN', 'CLS-LABL']);

/** True for a procedure that says what its steps do: only such a one can be judged. */
export const saysEffects = (steps: readonly Pick<PlacedStep, 'does'>[]): boolean =>
  steps.some((s) => (s.does?.length ?? 0) > 0);

/**
 * Laws that steps break, done in this order on this drive: what is off, loose, empty, apart, locked and pinned is followed
 * from step to step. Empty for a sheet that a fitter can work by; also for one that says nothing of its effects.
 */
export function brokenLaws(steps: readonly PlacedStep[], stages: readonly Stage[]): BrokenLaw[] {
  if (!saysEffects(steps)) return [];
  const drive = driveForHands(stages);
  const sim = new Simulation(drive, steps);
  return sim.run();
}

class Simulation {
  private readonly out: BrokenLaw[] = [];
  private readonly now: Hands;
  private readonly everOff = new Set<string>();
  private step!: PlacedStep;
  private keyOn: number | undefined;
  private turned = false;
  private cranked = false;
  private everEmpty = false;
  private started = false;
  private readonly looked = new Set<string>();

  constructor(
    private readonly drive: DriveForHands,
    private readonly steps: readonly PlacedStep[],
  ) {
    this.now = asFoundByHands(drive.stages.length);
  }

  run(): BrokenLaw[] {
    let phase = 0;
    for (const step of this.steps) {
      this.step = step;
      const at = step.phase ? PHASES.indexOf(step.phase) : phase;
      if (at < phase) this.breaks('phase_back', step.phase!);
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

  private breaks(law: LawCode, thing: string): void {
    if (!this.out.some((b) => b.law === law && b.step === this.step.id && b.thing === thing))
      this.out.push({ law, step: this.step.id, thing });
  }

  /** A look that was left out makes no fault of what would have been looked at. */
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

  private onThing(e: Effect): void {
    const things = touched(e, this.step.spot, this.drive);
    if (things.length === 0) this.breaks('not_there', e[1]);
    for (const { thing, key, stage } of things) this.act(e[0], thing, key, stage);
  }

  private act(act: Effect[0], thing: StepThing, key: string, stage: number): void {
    const { now } = this;
    const read = act === 'looked' || act === 'measured';
    if (act !== 'cured' && (act !== 'looked' || thing.kind === 'seat')) this.reach(thing, key, stage, read);
    switch (act) {
      case 'disconnected':
        this.into(now.apart, key, 'already_off');
        return;
      case 'connected':
        this.outOf(now.apart, key, 'already_on');
        return;
      case 'drained':
        this.into(now.empty, key, 'already_off');
        if (key === 'oil') this.everEmpty = true;
        now.unlevelled.add(key);
        return;
      case 'filled':
        this.outOf(now.empty, key, 'already_on');
        if (key === 'oil' && now.sealed.size > now.cured.size) this.breaks('uncured', key);
        return;
      case 'levelled':
        if (now.empty.has(key)) this.breaks('not_filled', key);
        now.unlevelled.delete(key);
        return;
      case 'loosened':
        this.loosen(thing, key);
        return;
      case 'tightened':
        this.tighten(thing, key, stage);
        return;
      case 'removed':
        this.remove(thing, key, stage);
        return;
      case 'fitted':
        this.fit(thing, key, stage);
        return;
      case 'cleaned':
        now.clean.add(key);
        return;
      case 'sealed':
        if (!now.clean.has(`${key}-face`)) this.breaks('seat_dirty', `${key}-face`);
        now.sealed.add(key);
        return;
      case 'cured':
        now.cured.add(key);
        return;
      case 'primed':
        now.primed.add(stage);
        return;
      case 'set':
        if (now.off.has(`loop@${stage}`)) this.breaks('loop_unlocked', key);
        now.taut.add(stage);
        if (this.drive.stages[stage]!.manual) this.keyOn = stage;
        return;
      case 'measured':
        // Over counted links, under a load: on the engine nothing of it can be measured.
        if (thing.id === 'loop' && !now.off.has(key)) this.breaks('hidden', key);
        return;
      case 'looked':
        this.look(key);
    }
  }

  /** What lies in front has to be off, whatever is done to a thing. */
  private reach(thing: StepThing, key: string, stage: number, read: boolean): void {
    for (const front of inFront(thing, stage, this.drive, read))
      if (!this.now.off.has(front) && front !== key) this.breaks('hidden', `${key} ${front}`);
  }

  private into(set: Set<string>, key: string, law: LawCode): void {
    if (set.has(key)) this.breaks(law, key);
    set.add(key);
  }
  private outOf(set: Set<string>, key: string, law: LawCode): void {
    if (!set.delete(key)) this.breaks(law, key);
  }

  private loosen(thing: StepThing, key: string): void {
    const { now } = this;
    if (key === 'crank-bolt' && now.lockedCrank) this.breaks('lock_as_counterhold', key);
    // A sprocket freed from its shaft leaves the shaft to itself, whatever holds the sprocket.
    if (
      (thing.id === 'cam-bolts' || thing.id === 'phaser-bolts') &&
      this.drive.freeSeat &&
      now.cams !== 'shafts'
    )
      this.breaks('shaft_free', key);
    this.into(now.loose, key, 'already_off');
  }

  private tighten(thing: StepThing, key: string, stage: number): void {
    const { now, drive } = this;
    if (!now.loose.delete(key)) this.breaks('not_loosened', key);
    if (!this.step.torque && this.step.torqueNm === undefined) this.breaks('no_torque', key);
    if (key === 'crank-bolt' && now.lockedCrank) this.breaks('lock_as_counterhold', key);
    const held = heldBy(thing.id).map((id) => key.replace(thing.id, id));
    for (const part of held) if (now.off.has(part)) this.breaks('left_off', part);
    if (thing.id === 'tensioner-bolts' && this.keyOn === stage) this.keyOn = undefined;
    if ((thing.id === 'cam-bolts' || thing.id === 'phaser-bolts') && drive.freeSeat) {
      if (now.cams !== 'shafts') this.breaks('shaft_free', key);
      if ([...drive.stages.keys()].some((i) => drive.stages[i]!.has.has('timed') && !now.taut.has(i)))
        this.breaks('shaft_free', `${key} slack`);
      if (drive.has.has('slots') && !now.clean.has('slot-ends')) this.breaks('slots_unseen', key);
    }
  }

  private remove(thing: StepThing, key: string, stage: number): void {
    const { now } = this;
    if (thing.kind === 'aid') {
      if (!now.aids.delete(key)) this.breaks('already_off', key);
      if ([...now.off].some((k) => thingOf(k)?.rests === key)) this.breaks('unsupported', key);
      return;
    }
    if (thing.rests !== undefined && !now.aids.has(thing.rests)) this.breaks('unsupported', key);
    if (thing.drains !== undefined && !now.empty.has(thing.drains)) this.breaks('not_filled', thing.drains);
    const bolt = thing.fastener && key.replace(thing.id, thing.fastener);
    if (bolt !== undefined && !now.loose.has(bolt)) this.breaks('not_loosened', bolt);
    if (thing.id === 'loop') this.loop(stage, key);
    if (thing.id === 'tensioner') this.tensionerOff(stage, key);
    if (thing.seat !== undefined) now.clean.delete(thing.seat);
    if (thing.kind !== 'seal') this.into(now.off, key, 'already_off');
    else now.off.add(key);
    this.everOff.add(key);
    const times = now.times.get(key) ?? { removed: 0, fitted: 0 };
    now.times.set(key, { ...times, removed: times.removed + 1 });
  }

  /** A plunger that can be held back is, before it comes off; what holds it goes with it. */
  private tensionerOff(stage: number, key: string): void {
    const { back } = this.drive.stages[stage]!;
    if (!this.now.pinned.delete(stage) && back !== undefined && back !== 'never')
      this.breaks('pin_missing', key);
  }

  private fit(thing: StepThing, key: string, stage: number): void {
    const { now, drive } = this;
    if (thing.kind === 'aid') {
      this.into(now.aids, key, 'already_on');
      return;
    }
    if (thing.kind === 'seal' && !thing.pressedIn) now.off.delete(key);
    else this.outOf(now.off, key, 'already_on');
    if (thing.seat !== undefined && !now.clean.has(thing.seat)) this.breaks('seat_dirty', thing.seat);
    if (thing.id === 'loop') {
      this.loop(stage, key);
      now.taut.delete(stage);
      if (!this.drive.stages[stage]!.tensioned) now.taut.add(stage);
    }
    if (key === 'cover' || key === 'lower-cover')
      drive.stages.forEach((x, i) => {
        if (x.oilFed && this.everOff.has(`tensioner@${i}`) && !now.primed.has(i))
          this.breaks('feed_dry', `tensioner@${i}`);
      });
    if (thing.id === 'tensioner' && drive.stages[stage]!.oilFed)
      for (const seat of ['plunger-bore', 'oil-screen'])
        if (!now.clean.has(seat)) this.breaks('seat_dirty', seat);
    if ((key === 'cover' || key === 'lower-cover' || key === 'sump') && now.clean.has(`${key}-face`))
      if (!now.sealed.has(key)) this.breaks('unsealed', key);
    const times = now.times.get(key) ?? { removed: 0, fitted: 0 };
    now.times.set(key, { ...times, fitted: times.fitted + 1 });
  }

  /** A belt or chain goes off and on only with the crank locked at its mark and the cams held. */
  private loop(stage: number, key: string): void {
    const { now, drive } = this;
    if (now.crank !== 'mark' || !now.lockedCrank) this.breaks('loop_unlocked', key);
    if (now.cams === undefined) this.breaks('loop_unlocked', `${key} cams`);
    if (drive.stages[stage]!.back !== undefined && this.step.does?.some(([a]) => a === 'fitted')) return;
    now.taut.delete(stage);
  }

  private look(key: string): void {
    const { now } = this;
    if (key === 'slot-ends') {
      if ([...this.drive.stages.keys()].some((i) => !now.taut.has(i))) this.breaks('slots_unseen', key);
      now.clean.add('slot-ends');
    }
    if (key !== 'marks' && key !== 'tools') return;
    this.looked.add(key);
    if (this.step.phase === 'check' && !this.turned) this.breaks('not_turned', key);
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
    const back = drive.stages[stage]!.back;
    if (back === undefined) this.breaks('not_there', 'plunger');
    // A new one comes held back; one that is set back is set back as its kind asks.
    else if (how !== 'new' && (back === 'never' || how !== back)) this.breaks('plunger_kind', how);
    now.pinned.add(stage);
    now.taut.delete(stage);
  }

  private release(how: string): void {
    const { now, drive, step } = this;
    const { stage } = step.spot;
    const back = drive.stages[stage]!.back;
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
