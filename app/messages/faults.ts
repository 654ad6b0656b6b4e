import type { Severity } from '@core/claim/faults';
import { counted } from '../language/plural';

export const SEVERITY_WORDS: Record<Severity, string> = {
  grave: '▲ grave: it can ruin the engine',
  serious: 'serious: it ends the drive or a part of it early',
  slight: 'slight: it costs proof or work, no part by itself',
};

/** How often the same workshop was here with it before. */
export const repeatWords = (same: 'fault' | 'step', times: number): string =>
  same === 'fault'
    ? `This workshop had the same fault ${counted(times, 'time', 'times')} before:`
    : `This workshop had another fault at the same step ${counted(times, 'time', 'times')} before:`;
