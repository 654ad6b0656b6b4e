import { type CostTyped, costFacts } from '@core/answer/decide';
import { must } from '@core/quantity/must';
import type { Author, Fact, FactValue, Provenance } from '@core/facts/fact';
import { fileFact } from '@core/facts/change';
import { reduce } from '@core/facts/state';
import { sealing } from '@core/answer/sealing';
import { worldOf } from '@core/answer/world';
import { catalogueOf } from '@core/catalogue/find-records';
import { faultThing } from '@core/facts/thing';
import { CAUSES } from '@core/cause/cause-data';
import { demoPack } from './catalogue';
import { randomFrom } from '@core/quantity/random';
import { weibullLife } from './random';

type Row = [key: string, value: FactValue, how?: Provenance, note?: string];
type Script = {
  id: string;
  tag: string;
  /** Lines of what is asked for. */
  costs?: readonly CostTyped[];
  opened: string;
  rows: Row[];
  fault?: { code: string; on: string[]; note: string };
  after?: Row[];
  seal?: true;
};

export const PACK = 'Marrowfen 2026.3';
/** Standard uncertainties of the gauges at this desk. */
const SPREAD: Record<string, number> = {
  'tensioner.pointer': 3,
  'tensioner.extension': 0.2,
  'chain.length': 0.12,
  'vehicle.odometer': 500,
  'kit.fitted_odometer': 500,
};
const round = (v: number, to: number) => Math.round(v / to) * to;

function scripts(random: () => number): Script[] {
  const life = (key: string) => {
    const { shape, scale } = must(CAUSES.causes.find((c) => c.key === key)).life;
    return round(weibullLife(random, shape, scale), 100);
  };
  const wrongWayRun = life('set_wrong_way');
  const looseRun = life('bolt_loose');
  return [
    {
      id: 'demo-2044',
      tag: '2044',
      opened: '2026-11-24T06:02:00.000Z',
      rows: [
        ['call.who', 'Jory Pellbrook, Tidewall Garage', 'reported'],
        ['engine.code', 'OL25-FLET', 'reported'],
        ['vehicle.name', 'Oldhaven Moorland estate, harbour pilot', 'reported'],
        ['vehicle.built', '2016-05-03', 'document'],
        ['vehicle.odometer', 178200, 'reported'],
        ['symptom', 'none', 'reported'],
        ['complaint', 'New belt is on. Upper right mark stands half a tooth ahead. Go or no go?', 'reported'],
        ['feature.gearbox', 'manual', 'reported'],
      ],
    },
    {
      id: 'demo-2036',
      tag: '2036',
      opened: '2026-11-20T11:25:00.000Z',
      rows: [
        ['call.who', 'Coldwater Lane Workshop', 'document'],
        ['claim.number', 'C-20361', 'document'],
        ['engine.code', 'QU13-STOA', 'document'],
        ['vehicle.name', 'Quillon Hopper School', 'document'],
        ['vehicle.built', '2018-09-12', 'document'],
        ['vehicle.odometer', 121900, 'document'],
        ['case.date', '2026-11-11', 'document'],
        ['kit.fitted', '2021-03-10', 'document'],
        ['kit.fitted_odometer', 22400, 'document'],
        ['symptom', 'noise', 'reported'],
        ['complaint', 'Rattles at every start since a month. Your chain kit is in it.', 'reported'],
        ['parts.sent', ['tensioner', 'chain', 'rail'], 'seen'],
        ['feature.plunger-cap', 'screw', 'seen'],
        ['tensioner.extension', 21.6, 'measured'],
        ['chain.length', 320.9, 'measured'],
        ['chain.links_over', 40, 'measured'],
      ],
    },
    {
      id: 'demo-2041',
      tag: '2041',
      opened: '2026-11-23T08:12:00.000Z',
      rows: [
        ['call.who', 'Wick Amberlow, Sallow Lane Garage', 'reported'],
        ['engine.code', 'TE16-CORM', 'reported'],
        ['vehicle.name', 'Tessarine Orchardman, orchard truck', 'reported'],
        ['vehicle.built', '2019-05-20', 'document'],
        ['symptom', 'none', 'reported'],
        ['complaint', 'Belt job booked for tomorrow. Which kit do I order?', 'reported'],
      ],
    },
    {
      id: 'demo-2038',
      tag: '2038',
      opened: '2026-11-20T13:40:00.000Z',
      rows: [
        ['call.who', 'Fenmouth Quay Motors', 'document'],
        ['claim.number', 'C-20381', 'document'],
        ['engine.code', 'TE16-CORM', 'document'],
        ['vehicle.name', 'Tessarine Causeway, mountain school bus', 'document'],
        ['vehicle.built', '2021-02-11', 'document'],
        ['vehicle.odometer', 88150, 'document'],
        ['case.date', '2026-11-09', 'document'],
        ['kit.number', 'MF-K123-1', 'document'],
        ['kit.bought', 'Aldmere Parts Counter', 'document'],
        ['kit.fitted', '2026-08-28', 'document'],
        ['kit.fitted_odometer', 88150 - wrongWayRun, 'document'],
        ['symptom', 'noise', 'reported'],
        ['complaint', 'Scraping from the cover since a week, getting louder on the pass.', 'reported'],
        ['parts.sent', ['tensioner', 'belt', 'guide', 'cover'], 'seen'],
        ['feature.cover-screws', 'seven', 'reported'],
      ],
    },
    {
      id: 'demo-2033',
      tag: '2033',
      opened: '2026-11-19T14:05:00.000Z',
      rows: [
        ['call.who', 'Perrin Oakshaw, Brackenhythe Ambulance Station', 'reported'],
        ['claim.number', 'C-20334', 'document'],
        ['engine.code', 'TE16-CORM', 'document'],
        ['vehicle.built', '2017-09-04', 'document'],
        ['vehicle.odometer', 141300, 'document'],
        ['case.date', '2026-11-02', 'document'],
        ['kit.number', 'MF-K121-1', 'document'],
        ['kit.fitted', '2026-02-16', 'document'],
        ['kit.fitted_odometer', 141300 - looseRun, 'document'],
        ['symptom', 'rough', 'reported'],
        ['fault.codes', ['P0016'], 'document'],
        ['complaint', 'Lost power on the way out, came back on the hook.', 'reported'],
        ['parts.sent', ['tensioner', 'belt', 'bolts'], 'seen'],
        ['tensioner.pointer', 41, 'measured'],
        ['tensioner.key_turn', 'ccw', 'seen'],
        ['tensioner.bearing', 'quiet', 'seen'],
        ['tensioner.stop', 'marked', 'seen'],
        ['wheel.rim_marks', [], 'reported', 'Guide roller not sent; the workshop says it is clean.'],
        ['cover.rub', 'front', 'reported'],
        ['belt.edge_front', 'polished', 'seen'],
        ['belt.edge_rear', 'straight', 'seen'],
        ['belt.teeth', 'hooked', 'seen'],
        ['belt.break', 'whole', 'seen'],
        ['belt.contamination', 'dry', 'seen'],
        ['fit.tightened', 'feel', 'reported'],
      ],
      costs: [
        { what: 'Kit MF-K121-1', kind: 'part', quantity: 1, rate: 212.4, tax: 0.19 },
        { what: 'Timing drive out and in', kind: 'labour', quantity: 4.75, rate: 71, tax: 0.19 },
        { what: 'Recovery from the upper road', kind: 'other', quantity: 1, rate: 96.5 },
      ],
    },
    {
      id: 'demo-2027',
      tag: '2027',
      opened: '2026-11-19T08:20:00.000Z',
      rows: [
        ['call.who', 'Hester Quill, Low Ferry Workshop', 'document'],
        ['claim.number', 'C-20272', 'document'],
        ['engine.code', 'TE16-CORM', 'document'],
        ['vehicle.name', 'Tessarine Orchardman, river ferry’s deck van', 'document'],
        ['vehicle.built', '2018-03-15', 'document'],
        ['vehicle.odometer', 96420, 'document'],
        ['case.date', '2026-10-19', 'document'],
        ['kit.number', 'MF-K121-1', 'document'],
        ['kit.bought', 'Aldmere Parts Counter', 'document'],
        ['kit.fitted', '2026-07-30', 'document'],
        ['kit.fitted_odometer', 90120, 'document'],
        ['symptom', 'stopped', 'reported'],
        ['complaint', 'Stopped on the ramp. Belt was off and chewed at the edge.', 'reported'],
        ['parts.sent', ['tensioner', 'belt', 'guide', 'cover'], 'seen'],
        ['tensioner.pointer', -100, 'measured'],
        ['tensioner.key_turn', 'cw', 'seen'],
        ['tensioner.bearing', 'quiet', 'seen'],
        ['wheel.rim_marks', ['guide'], 'seen'],
        ['cover.rub', 'through', 'seen'],
        ['belt.edge_front', 'frayed', 'seen'],
        ['belt.edge_rear', 'polished', 'seen'],
        ['belt.teeth', 'sound', 'seen'],
        ['belt.break', 'whole', 'seen'],
        ['belt.contamination', 'dry', 'seen'],
        ['claim.invoice', 'yes', 'document'],
        ['claim.sheet', 'no', 'document'],
        ['cause.decided', 'set_wrong_way', 'decided'],
      ],
      fault: {
        code: 'SET-WAY',
        on: ['tensioner.pointer', 'tensioner.key_turn', 'wheel.rim_marks'],
        note: 'tension',
      },
      after: [
        ['claim.cost_part', 148.5, 'document'],
        ['claim.cost_labour', 310, 'document'],
        [
          'claim.alternative',
          'A tensioner bearing that tilts could steer the belt off as well; it turns smooth and quiet without play.',
          'decided',
        ],
        [
          'claim.reason',
          'The pointer and the key marks show that the tensioner was turned against its arrow. The belt then ran at the guide roller’s rim, climbed it and came off.',
          'decided',
        ],
        ['claim.decision', 'decline', 'decided'],
      ],
      seal: true,
    },
  ];
}

/** The demo cases as facts, in the order in which they were filed. */
export function demoFacts(seed: number): Fact[] {
  return scripts(randomFrom(seed)).flatMap(play);
}

function play(s: Script): Fact[] {
  const facts: Fact[] = [];
  let minute = 0;
  let made = 0;
  const author: Author = {
    by: 'Ida Fennimore',
    now: () => new Date(Date.parse(s.opened) + minute * 60000).toISOString(),
    newId: () => `${s.id}-${String(++made).padStart(3, '0')}`,
  };
  const add = (
    key: string,
    value: FactValue,
    how: Provenance = 'reported',
    note?: string,
    basis?: string[],
    about?: string,
  ) => {
    const u = SPREAD[key];
    const entry = {
      key,
      about,
      value,
      how,
      ...(u ? { u } : {}),
      ...(note ? { note } : {}),
      ...(basis ? { basis } : {}),
    };
    facts.push(fileFact(reduce(facts), s.id, entry, author));
    minute++;
  };
  add('case.tag', s.tag, 'decided');
  add('case.catalogue', PACK, 'decided');
  for (const [key, value, how, note] of s.rows) add(key, value, how, note);
  if (s.fault) {
    const on = s.fault.on.map((key) => must(facts.findLast((f) => f.key === key)).id);
    add('claim.fault', s.fault.note, 'decided', undefined, on, faultThing(s.fault.code));
  }
  (s.costs ?? []).forEach((typed, i) => {
    for (const f of costFacts(`${s.tag}-${i + 1}`, typed))
      add(f.key, f.value, f.how, undefined, undefined, f.about);
  });
  for (const [key, value, how, note] of s.after ?? []) add(key, value, how, note);
  if (s.seal) facts.push(...sealing(worldOf(catalogueOf(demoPack())), reduce(facts), s.id, author));
  return facts;
}
