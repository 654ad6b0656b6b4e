import { type IntakeContext, usualSpread } from './context';
import type { Proposal, TextSpan } from './proposal';

/** What a distance is of; `bare`: nothing says it. */
export type DistanceRole =
  | 'now'
  | 'bare'
  | 'fitted'
  | 'since'
  | 'yearly'
  | 'oil'
  | 'oil_ago'
  | 'lamp'
  | 'other';
export type DistanceTold = {
  role: DistanceRole;
  km: number;
  u?: number;
  sure: Proposal['sure'];
  span: TextSpan;
  hearsay?: string;
};

const NAMED: Readonly<Record<string, string>> = {
  now: 'vehicle.odometer',
  fitted: 'kit.fitted_odometer',
  yearly: 'vehicle.yearly',
  oil: 'oil.changed_at',
  lamp: 'oil.lamp_at',
};

/** Facts of what was told; a distance run since something is taken from the reading now. */
export function distanceFacts(
  all: readonly DistanceTold[],
  fixes: readonly number[],
  cases: number,
  ctx: IntakeContext,
): Proposal[] {
  // What is put right is what was told before.
  const meant = all.map((t) =>
    t.role === 'bare' && fixes.some((at) => at < t.span.from) ? { ...t, role: 'now' as const } : t,
  );
  const told = meant.filter((t) => t.role !== 'bare');
  // A number without a word of what it is may be the one or the other: both are asked, where neither was told.
  const open = ['vehicle.odometer', 'kit.fitted_odometer'].filter(
    (k) => !told.some((t) => NAMED[t.role] === k),
  );
  const bare =
    told.some((t) => t.role === 'now') && cases < 2
      ? []
      : meant.filter((t) => t.role === 'bare').slice(0, Math.max(1, cases));
  const asked = bare.flatMap((t) =>
    (cases > 1 ? ['vehicle.odometer'] : open).map(
      (key): Proposal => ({
        key,
        value: Math.round(t.km),
        how: 'reported',
        sure: 'ask',
        doubt: 'bare_number',
        spans: [t.span],
      }),
    ),
  );
  const out: Proposal[] = told.flatMap((t): Proposal[] => {
    const key = NAMED[t.role];
    return key === undefined
      ? []
      : [
          {
            key,
            value: Math.round(t.km),
            how: 'reported',
            sure: t.sure,
            spans: [t.span],
            ...(t.u === undefined ? {} : { u: t.u }),
            ...(t.hearsay === undefined ? {} : { hearsay: t.hearsay }),
          },
        ];
  });
  const usual = usualSpread(ctx.registry.get('vehicle.odometer')) ?? 0;
  const stated = (key: string) => out.find((p) => p.key === key && p.sure !== 'ask')?.value;
  const odo = stated('vehicle.odometer') ?? ctx.odometerKm;
  const oilAt = stated('oil.changed_at');
  for (const t of told) {
    const follow = (key: string, value: number) => {
      if (value > 0 && !out.some((p) => p.key === key))
        out.push({
          key,
          value: Math.round(value),
          u: Math.hypot(usual, t.u ?? usual),
          how: 'computed',
          sure: t.sure === 'ask' ? 'ask' : 'likely',
          spans: [t.span],
        });
    };
    if (t.role === 'since') {
      if (typeof odo === 'number') follow('kit.fitted_odometer', odo - t.km);
      else if (!stated('kit.fitted_odometer'))
        out.push({
          key: 'kit.run',
          value: Math.round(t.km),
          how: 'reported',
          sure: t.sure,
          spans: [t.span],
          ...(t.u === undefined ? {} : { u: t.u }),
        });
    }
    if (t.role === 'oil_ago' && typeof oilAt === 'number' && odo === undefined)
      follow('vehicle.odometer', oilAt + t.km);
    else if (t.role === 'oil_ago' && typeof odo === 'number') follow('oil.changed_at', odo - t.km);
  }
  return belowFitted([...out, ...asked]);
}

/** A reading below the one at the fitting is asked: one of the two is wrong, or they are of two clocks. */
function belowFitted(list: readonly Proposal[]): Proposal[] {
  const fitted = list.find((p) => p.key === 'kit.fitted_odometer')?.value;
  return list.map((p) =>
    p.key === 'vehicle.odometer' &&
    typeof fitted === 'number' &&
    typeof p.value === 'number' &&
    p.value < fitted
      ? { ...p, sure: 'ask' as const, doubt: 'not_sure' as const }
      : p,
  );
}
