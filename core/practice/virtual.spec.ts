import { answersFor } from '@core/answer/answers';
import { registryFor, worldOf } from '@core/answer/world';
import { CAUSES } from '@core/cause/cause-data';
import { catalogueOf } from '@core/catalogue/find-records';
import { checkFacts } from '@core/facts/consistent';
import { fileFacts } from '@core/facts/change';
import { FactSchema } from '@core/facts/fact';
import { optionsOf } from '@core/facts/observable';
import { emptyState, reduce } from '@core/facts/state';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { must } from '@core/quantity/must';
import { demoPack } from '../../demo/catalogue';
import { afterwards } from './after';
import { drawCase } from './draw-case';
import { entryOf } from './entry';
import { destroys, isLook, type Look, lookAt, minutesOf, patienceLeft } from './look';
import { bestPath, filedAs } from './path';
import { THEMES, themeOf } from './themes';
import { slotName, type VirtualCase, VirtualCaseSchema } from './virtual-case';

const cat = catalogueOf(demoPack());
const world = worldOf(cat);
const registry = registryFor(world);
const inWorld = { cat, registry, causes: CAUSES, policy: SHIPPED_POLICY };
const drawn = (seed: number, theme?: string, family?: string): VirtualCase => {
  const made = drawCase(inWorld, seed, theme, family);
  if (!made.ok) throw new Error(JSON.stringify(made.error));
  return made.value;
};
/** The first return of a cause, by theme. */
const ofCause = (cause: string, theme?: string): VirtualCase => {
  for (let seed = 1; seed < 400; seed++) {
    const c = drawn(seed, theme);
    if (c.cause === cause) return c;
  }
  throw new Error(`no ${cause}`);
};
let n = 0;
const author = { by: 'T', now: () => '2026-10-01T08:00:00.000Z', newId: () => `v${++n}` };
const factsOf = (c: VirtualCase, all = c.there) => {
  const feature = c.there.filter((l) => l.key.startsWith('feature.'));
  return fileFacts(emptyState([]), c.id, [...c.opening, ...feature, ...all].map(entryOf), author);
};
const answersOf = (c: VirtualCase, all = c.there) => answersFor(world, reduce(factsOf(c, all)));

describe('a virtual return, whole', () => {
  it('is the same for the same seed, keeps to its theme, and holds only what can be filed of its drive', () => {
    for (const theme of THEMES)
      for (let seed = 1; seed <= 12; seed++) {
        const c = drawn(seed, theme.key);
        expect(drawn(seed, theme.key)).toEqual(c);
        expect(VirtualCaseSchema.safeParse(c).success).toBeTrue();
        if (theme.causes.length > 0) expect(theme.causes).toContain(c.cause);
        for (const l of [...c.opening, ...c.there]) {
          const o = must(registry.get(l.key));
          if (o.type.kind === 'choice')
            expect(optionsOf(o).map((x) => x.key))
              .withContext(`${c.id} ${l.key}`)
              .toContain(l.value as string);
          if (o.type.kind === 'number') {
            expect(Number(l.value)).withContext(`${c.id} ${l.key}`).toBeGreaterThanOrEqual(o.type.min);
            expect(Number(l.value)).withContext(`${c.id} ${l.key}`).toBeLessThanOrEqual(o.type.max);
          }
        }
        const slots = c.there.map(slotName);
        for (const s of c.shows) expect(slots).toContain(s);
        for (const f of factsOf(c)) expect(FactSchema.safeParse(f).success).withContext(f.key).toBeTrue();
      }
  });

  it('is of the family asked for where the theme has it, and refused where no drive can have it', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { cause } = drawn(seed, 'mixed', 'product');
      expect(CAUSES.causes.find((c) => c.key === cause)?.family).toBe('product');
    }
    const bare = catalogueOf({ ...demoPack(), variants: [] });
    expect(drawCase({ ...inWorld, cat: bare }, 1)).toEqual({
      ok: false,
      error: { code: 'no_such_drive', theme: 'mixed' },
    });
  });

  it('has its cause act by geometry: what the bench itself makes of the readings is what was done to the drive', () => {
    const wrong = answersOf(ofCause('set_wrong_way'));
    expect(wrong.drive?.tensioners[0]?.shown).toBe('wrong_way');
    const long = answersOf(ofCause('chain_worn'));
    expect(long.drive?.elongations[0]?.long).toBe('past');
    const out = ofCause('tooth_out', 'marks');
    const marks = must(answersOf(out).drive?.marks).marks;
    // one wheel is out, the others are not, as surely as the eye reads them
    const off = marks.filter((m) => (m.chances.teeth_out ?? 0) > 0.5);
    expect(off.length).toBe(1);
    expect(marks.filter((m) => (m.chances.as_predicted ?? 0) > 0.5).length).toBe(marks.length - 1);
    // warmth: the pointer stands away from its nominal though the setting was made on it
    const hot = ofCause('set_hot', 'lies');
    const reading = must(answersOf(hot).drive?.tensioners[0]);
    const window = reading.carrier.window;
    expect(Math.abs(reading.reading.value - window.nominal)).toBeGreaterThan(0);
  });

  it('tells wrong about as often as its theme says, and never what lies on the bench', () => {
    const share = (theme: string) => {
      let [told, wrong] = [0, 0];
      for (let seed = 1; seed <= 60; seed++) {
        const c = drawn(seed, theme);
        for (const s of c.wrong) {
          const l = must(c.there.find((x) => slotName(x) === s));
          expect(registry.get(l.key)?.how).toBe('reported');
        }
        told += c.there.filter((l) => {
          const o = must(registry.get(l.key));
          return o.how === 'reported' && o.type.kind === 'choice' && o.part !== 'drive';
        }).length;
        wrong += c.wrong.length;
      }
      return wrong / told;
    };
    expect(share('lies')).toBeGreaterThan(3 * share('mixed'));
    expect(must(themeOf('lies')).toldWrong).toBeGreaterThan(share('lies'));
  });
});

describe('a sheet in the box', () => {
  it('shows the very fault that the return has, or ticks it as done where it lies, and breaks no gate of its own', () => {
    let [shown, lied] = [0, 0];
    for (let seed = 1; seed <= 40; seed++) {
      const c = drawn(seed, 'lies');
      const a = answersOf(c);
      expect(c.opening.some((l) => l.key === 'step.done')).toBeTrue();
      const faults = a.fitted?.faults ?? [];
      for (const f of faults)
        expect(CAUSES.sheet.names[f.code]).withContext(`${c.id} ${f.code}`).toContain(c.cause);
      if (faults.length > 0) shown++;
      else lied++;
    }
    // more often than not it lies
    expect(lied).toBeGreaterThan(shown);
    expect(shown).toBeGreaterThan(0);
  });
});

describe('looking at a virtual return', () => {
  const looks = (c: VirtualCase) =>
    [...registry.values()].filter((o) => isLook(o) && c.there.some((l) => l.key === o.key));

  it('shows the same again, says what did not come, and lets the caller ring off', () => {
    const c = drawn(3);
    const asked = looks(c).filter((o) => o.how === 'reported');
    const made: Look[] = [];
    for (const o of asked) {
      const before = patienceLeft(c, made, registry);
      const seen = lookAt(c, o, undefined, made, registry);
      expect(seen.is === 'rung_off')
        .withContext(o.key)
        .toBe(before <= 0);
      made.push({ key: o.key, minutes: minutesOf(o) });
      if (seen.is === 'found') expect(lookAt(c, o, undefined, made, registry)).toEqual(seen);
    }
    expect(patienceLeft(c, made, registry)).toBe(0);
    const sent = new Set(must(c.opening.find((l) => l.key === 'parts.sent')).value as string[]);
    const pump = must(registry.get('pump.turns'));
    expect(lookAt(c, pump, undefined, [], registry).is === 'not_sent').toBe(!sent.has('pump'));
  });

  it('is destroyed by looks that come too early, and by no others', () => {
    let seen = 0;
    for (let seed = 1; seed <= 30; seed++) {
      const c = drawn(seed);
      for (const o of registry.values()) {
        const gone = destroys(c, o, undefined, []);
        for (const key of gone) {
          const other = must(registry.get(key));
          const look = { key: o.key, minutes: 1 };
          expect(lookAt(c, other, undefined, [look], registry)).toEqual({ is: 'destroyed', by: o.key });
          const first = { key, minutes: 1 };
          expect(lookAt(c, other, undefined, [first, look], registry).is).not.toBe('destroyed');
          seen++;
        }
      }
    }
    expect(seen).toBeGreaterThan(10);
  });
});

describe('looking back', () => {
  const runOf = (c: VirtualCase, keys: readonly { key: string; about?: string }[]) => {
    const made: Look[] = [];
    const entries = keys.flatMap(({ key, about }) => {
      const o = must(registry.get(key));
      const seen = lookAt(c, o, about, made, registry);
      made.push({ key, ...(about === undefined ? {} : { about }), minutes: minutesOf(o) });
      return filedAs({ key, about }, seen);
    });
    const facts = fileFacts(emptyState([]), c.id, [...c.opening.map(entryOf), ...entries], author);
    return { looks: made, facts, entries };
  };

  it('finds nothing missed, claimed or destroyed where every look was made and filed as it lay there', () => {
    const c = ofCause('tensioner_bearing');
    const shown = c.there.filter((l) => c.shows.includes(slotName(l)));
    const first = shown.flatMap((l) => destroys(c, must(registry.get(l.key)), l.about, []));
    const keys = [...new Set(first)].map((key) => ({ key })).concat(shown);
    const { looks, facts } = runOf(c, keys);
    const a = afterwards(world, c, { looks, facts, verdict: { cause: c.cause, sure: 0.9 } });
    expect([a.missed, a.claimed, a.destroyed]).toEqual([[], [], []]);
    expect([a.right, a.family, a.fairness.fair]).toEqual([true, true, true]);
    expect(a.own.steps.length).toBe(looks.length);
    expect(a.own.minutes).toBe(looks.reduce((s, l) => s + l.minutes, 0));
    // what shows the truth makes it likelier
    expect(must(a.own.steps.at(-1)).share).toBeGreaterThan(a.own.from);
  });

  it('names what was never looked at, what was filed without a look, and whom the verdict wrongs', () => {
    const c = ofCause('set_wrong_way');
    const facts = fileFacts(
      emptyState([]),
      c.id,
      [...c.opening.map(entryOf), { key: 'belt.teeth', value: 'hooked', how: 'seen' }],
      author,
    );
    const product = must(CAUSES.causes.find((x) => x.bears === 'supplier'));
    const a = afterwards(world, c, { looks: [], facts, verdict: { cause: product.key, sure: 0.8 } });
    expect(a.missed.map((m) => m.lies.key)).toContain('tensioner.pointer');
    expect(a.missed.every((m) => !m.looked)).toBeTrue();
    expect(a.claimed.map((x) => x.key)).toContain('belt.teeth');
    expect(a.fairness).toEqual({ by: 'supplier', truly: 'fitter', fair: false });
    expect(a.right).toBeFalse();
  });

  it('has a path of the desk that looks at nothing twice, and finds what can be seen more often than not', () => {
    let [right, of] = [0, 0];
    for (let seed = 1; seed <= 10; seed++) {
      const c = drawn(seed, 'mixed', 'fitting');
      const p = bestPath(world, c);
      expect(new Set(p.steps.map(slotName)).size).toBe(p.steps.length);
      expect(p.minutes).toBe(p.steps.reduce((s, x) => s + x.minutes, 0));
      if (c.shows.length === 0) continue;
      of++;
      if (p.leader?.cause === c.cause) right++;
    }
    expect(right / of).toBeGreaterThan(0.4);
  });
});

describe('a return for practice and a case', () => {
  it('never become each other: its facts stand in no case', () => {
    const [fact] = factsOf(drawn(1));
    expect(checkFacts([must(fact)])).toEqual({ code: 'practice', id: must(fact).id });
    expect(checkFacts([{ ...must(fact), case: 'demo-1' }])).toBeUndefined();
  });
});
