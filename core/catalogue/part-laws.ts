import { nth } from '@core/quantity/must';
import type { Effect, StepThing } from './effects';
import { heldBy, thingOf } from './effects';
import type { PlacedStep } from './expand-procedure';
import { asFoundByHands, type DriveForHands, type Hands, inFront, touched } from './hands';
import type { BrokenLaw, LawCode } from './law-codes';

/** Laws of parts, fasteners, seals and fluids: what is reached, undone, taken off, cleaned and put on again. */
export abstract class PartLaws {
  protected readonly out: BrokenLaw[] = [];
  protected readonly now: Hands;
  protected readonly everOff = new Set<string>();
  protected step!: PlacedStep;
  /** Stage whose manual eccentric nothing but the key holds. */
  protected keyOn: number | undefined;
  protected turned = false;
  protected everEmpty = false;
  protected readonly looked = new Set<string>();

  constructor(
    protected readonly drive: DriveForHands,
    protected readonly steps: readonly PlacedStep[],
  ) {
    this.now = asFoundByHands(drive.stages.length);
  }

  protected breaks(law: LawCode, thing: string): void {
    if (!this.out.some((b) => b.law === law && b.step === this.step.id && b.thing === thing))
      this.out.push({ law, step: this.step.id, thing });
  }

  /** What a step does to a thing, wherever on this drive it is. */
  protected onThing(e: Effect): void {
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
        this.putOn(thing, key, stage);
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
        if (nth(this.drive.stages, stage).manual) this.keyOn = stage;
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
      if ([...drive.stages.keys()].some((i) => nth(drive.stages, i).has.has('timed') && !now.taut.has(i)))
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
    const { back } = nth(this.drive.stages, stage);
    if (!this.now.pinned.delete(stage) && back !== undefined && back !== 'never')
      this.breaks('pin_missing', key);
  }

  private putOn(thing: StepThing, key: string, stage: number): void {
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
      if (!nth(this.drive.stages, stage).tensioned) now.taut.add(stage);
    }
    if (key === 'cover' || key === 'lower-cover')
      drive.stages.forEach((x, i) => {
        if (x.oilFed && this.everOff.has(`tensioner@${i}`) && !now.primed.has(i))
          this.breaks('feed_dry', `tensioner@${i}`);
      });
    if (thing.id === 'tensioner' && nth(drive.stages, stage).oilFed)
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
    if (nth(drive.stages, stage).back !== undefined && this.step.does?.some(([a]) => a === 'fitted')) return;
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
}
