import { OBSERVABLES } from '@core/facts/registry';
import { GLOSSARY, termIn, termsWith } from './glossary';

describe('the glossary', () => {
  it('gives no name two meanings, and stands in the order of the alphabet', () => {
    const names = GLOSSARY.flatMap((t) => [t.term, ...(t.also ?? [])]);
    expect(new Set(names).size).toBe(names.length);
    for (const n of names) expect(n).toBe(n.toLowerCase());
    const terms = GLOSSARY.map((t) => t.term);
    expect(terms).toEqual([...terms].sort((a, b) => (a < b ? -1 : 1)));
  });

  it('finds the longest term in a text, and no term inside another word', () => {
    expect(termIn('On the Drive bench')?.term).toBe('drive bench');
    expect(termIn('Drive')?.term).toBe('drive');
    expect(termIn('Guide rollers, right')?.term).toBe('idler');
    expect(termIn('Driver and beltline')).toBeUndefined();
    expect(termIn('Its seal')?.of).toBe('desk');
    expect(termIn('Its seal', 'field')).toBeUndefined();
    expect(termIn('Seal ring', 'field')?.term).toBe('seal ring');
  });

  it('explains most of what parts are asked about by name', () => {
    const asked = OBSERVABLES.filter((o) => o.station === 'examine' && !o.hidden);
    const explained = asked.filter((o) => termIn(`${o.wording} ${o.part}`));
    expect(explained.length / asked.length).toBeGreaterThan(0.8);
  });

  it('is searched in names and meanings', () => {
    expect(termsWith('collapsed pin').map((t) => t.term)).toEqual(['retaining pin']);
    expect(termsWith('')).toEqual(GLOSSARY);
    expect(termsWith('zzz')).toEqual([]);
  });
});
