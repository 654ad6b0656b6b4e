import { must, nth } from '@core/quantity/must';
import type { KitMatch } from '@core/match/match-kits';
import { textOf, thingsWith } from '@core/facts/read';
import { THING } from '@core/facts/thing';
import { type AnsweredQuestion, type Case, designName } from './advice';
import { missingDesign, missingEngine } from './missing';

const current = (m: KitMatch): boolean => m.kit.status === 'current';

/** Which kit: the ones that serve every design left, else one for each design, with what tells them apart. */
export function adviseKit(c: Case): AnsweredQuestion {
  const { a } = c;
  if (!a.engine || !a.identification) return missingEngine();
  if (a.identification.contradicted)
    return { standing: 'cannot', lead: { code: 'contradicted' }, because: [], missing: [] };
  const fits = a.kits.filter((m) => m.verdict === 'fits' && current(m));
  if (fits.length > 0)
    return {
      standing: 'yes',
      lead: { code: 'kits', kits: fits },
      because: [{ code: 'match', match: nth(fits, 0) }],
      missing: [],
    };
  const branches = a.identification.possible.map((v) => ({
    design: designName(v),
    kits: a.kits
      .filter((m) => m.verdict === 'fits_if' && current(m) && m.variants.some((x) => x.id === v.id))
      .map((m) => m.kit.number),
  }));
  if (branches.every((b) => b.kits.length === 0))
    return { standing: 'cannot', lead: { code: 'no_kit' }, because: [], missing: [] };
  return {
    standing: 'if',
    lead: { code: 'kits_by_design', branches },
    because: [{ code: 'designs', names: branches.map((b) => b.design) }],
    missing: missingDesign(c),
  };
}

/** Does this kit or part fit: three-valued, by the kit named or the number of a part. */
export function adviseFits(c: Case): AnsweredQuestion {
  const { a, state } = c;
  const named = textOf(state, 'kit.number');
  const part = thingsWith(state, THING.number)
    .map((about) => textOf(state, THING.number, about === '' ? undefined : about))
    .find((n) => n !== undefined && c.world.catalogue.parts.has(n));
  if (named === undefined && part === undefined)
    return {
      standing: 'open',
      lead: { code: 'which_part' },
      because: [],
      missing: [{ key: 'kit.number', minutes: 1 }],
    };
  if (!a.engine) return missingEngine();
  const holds = (m: KitMatch) => m.kit.contents.some((x) => x.part === part);
  const matches = a.kits.filter((m) =>
    part !== undefined && named === undefined ? holds(m) : m.kit.number === named,
  );
  const order = ['fits', 'fits_if', 'no'] as const;
  const match = [...matches].sort((x, y) => order.indexOf(x.verdict) - order.indexOf(y.verdict))[0];
  const number = named ?? must(part);
  const instead = a.kits.filter((m) => m.verdict === 'fits' && current(m)).map((m) => m.kit.number);
  if (!match)
    return {
      standing: 'no',
      lead: { code: 'fits', number, verdict: 'no', instead },
      because: [],
      missing: [],
    };
  return {
    standing: match.verdict === 'fits' ? 'yes' : match.verdict === 'no' ? 'no' : 'if',
    lead: { code: 'fits', number, verdict: match.verdict, instead: match.verdict === 'no' ? instead : [] },
    because: [{ code: 'match', match }],
    missing: match.verdict === 'fits_if' ? missingDesign(c) : [],
    keys: ['kit.number', THING.number],
  };
}
