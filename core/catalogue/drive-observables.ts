import { isMarked } from '@core/drive/judge-marks';
import type { Layout } from '@core/drive/layout';
import type { Observable } from '@core/facts/observable';

/** Key of the observed mark offset of a wheel, teeth, advanced positive. */
export const markKey = (wheel: string): string => `mark.${wheel}`;
/** Key of how much nearer to the crank a bank was brought, mm. */
export const stackKey = (bank: string): string => `stack.${bank}`;

/** Mark offsets and machined heights that the catalogue's layouts let one observe. */
export function driveObservables(layouts: readonly Layout[]): Observable[] {
  const out = new Map<string, Observable>();
  for (const l of layouts) {
    for (const w of l.wheels.filter(isMarked)) {
      out.set(markKey(w.id), {
        key: markKey(w.id),
        wording: `Mark offset, ${w.name.toLowerCase()}`,
        aliases: [`mark ${w.name.toLowerCase()}`, `mark ${w.id.replace(/-/g, ' ')}`],
        part: 'drive',
        station: 'fit',
        needs: ['mark'],
        type: { kind: 'number', dimension: 'teeth', unit: 'teeth', decimals: 2, min: -8, max: 8, u: 0.1 },
        how: 'reported',
        observe:
          'Crank at its mark: by how many teeth is this mark ahead (+) or behind (−) in running direction?',
        minutes: 2,
      });
    }
    for (const b of l.banks ?? []) {
      out.set(stackKey(b.id), {
        key: stackKey(b.id),
        wording: `Machined off, ${b.name.toLowerCase()}`,
        aliases: [`machined ${b.name.toLowerCase()}`],
        part: 'engine',
        station: 'fit',
        needs: ['bank'],
        type: { kind: 'number', dimension: 'length', unit: 'mm', decimals: 2, min: -3, max: 5, u: 0.05 },
        how: 'reported',
        observe: 'From head, block and gasket together; a thicker gasket counts minus.',
        minutes: 2,
      });
    }
  }
  return [...out.values()];
}
