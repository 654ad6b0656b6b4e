import { nth } from '@core/quantity/must';
import { bestNamed } from '@core/catalogue/named-fasteners';
import { textOf } from '@core/facts/read';
import { driveGeometry } from '@core/answer/drive-answer';
import { tensionerIndex } from '@core/drive/layout';
import type { Stage } from '@core/drive/stages';
import { type Sheet, sheetFor } from '@core/fitting/sheet';
import { type AnsweredQuestion, type Case, designName, type SettingOf, type TorqueStep } from './advice';
import { designsOf, missingDesign, missingEngine } from './missing';

/** How every tensioner of a design is set, by the computed drive. */
function settingsOf(stages: readonly Stage[]): SettingOf[] {
  return stages.flatMap((stage): SettingOf[] => {
    if (tensionerIndex(stage.layout) < 0) return [];
    const g = driveGeometry([stage]);
    return g?.carrier && g.right
      ? [
          {
            stage: stages.length > 1 ? (stage.layout.name ?? stage.layout.id) : '',
            carrier: g.carrier,
            reading: g.right.reading,
          },
        ]
      : [];
  });
}

/** Two designs are set alike when kind, senses and window agree, and the computed reading to half a unit. */
const alike = (x: readonly SettingOf[], y: readonly SettingOf[]): boolean =>
  x.length === y.length &&
  x.every((s, i) => {
    const t = nth(y, i);
    return (
      Math.abs(s.reading - t.reading) < 0.5 &&
      JSON.stringify({ ...s.carrier, pivot: 0, arm: 0 }) ===
        JSON.stringify({ ...t.carrier, pivot: 0, arm: 0 })
    );
  });

export function adviseSetting(c: Case): AnsweredQuestion {
  if (!c.a.engine) return missingEngine();
  const designs = designsOf(c).map((d) => ({
    design: designName(d.variant),
    settings: settingsOf(d.stages),
  }));
  const [first, ...rest] = designs;
  if (!first || designs.every((d) => d.settings.length === 0))
    return { standing: 'cannot', lead: { code: 'no_setting' }, because: [], missing: [] };
  if (rest.every((d) => alike(first.settings, d.settings)))
    return {
      standing: 'yes',
      lead: { code: 'setting', settings: first.settings },
      because: [{ code: 'from_computed' }],
      missing: [],
      ...(rest.length === 0 ? { draw: 'setting' as const } : {}),
    };
  return {
    standing: 'if',
    lead: { code: 'setting_by_design', branches: designs },
    because: [{ code: 'designs', names: designs.map((d) => d.design) }],
    missing: missingDesign(c),
  };
}

/** Torques and the order of the work, from the sheet of the design; of several only where their sheets agree. */
export function adviseTorque(c: Case): AnsweredQuestion {
  if (!c.a.engine) return missingEngine();
  const sheets = designsOf(c).map((d) => sheetFor(c.world.catalogue, d.variant, d.stages, c.a.policy));
  const [first, ...rest] = sheets;
  if (!first || sheets.every((s) => s.status !== 'ready'))
    return { standing: 'cannot', lead: { code: 'no_procedure' }, because: [], missing: [] };
  const all = (s: Sheet): TorqueStep[] =>
    s.steps.flatMap(({ id, number, torque }) => (torque ? [{ id, number, torque }] : []));
  const words = textOf(c.state, 'call.bolt');
  const named = (s: Sheet) => (words === undefined ? [] : bestNamed(all(s), (x) => x.torque.fastener, words));
  const narrowed = sheets.every((s) => named(s).length > 0);
  const steps = narrowed ? named : all;
  const alike = (of: (s: Sheet) => unknown) =>
    rest.every((s) => JSON.stringify(of(s)) === JSON.stringify(of(first)));
  if (!alike((s) => steps(s).map((x) => [x.id, x.torque])))
    return {
      standing: 'open',
      lead: { code: 'no_procedure' },
      because: [{ code: 'designs', names: designsOf(c).map((d) => designName(d.variant)) }],
      missing: missingDesign(c),
    };
  const same = alike((s) => s.steps.map((x) => [x.id, x.text]));
  return {
    standing: 'yes',
    lead: { code: 'torques', steps: steps(first), of: same ? first.steps.length : 0 },
    because:
      narrowed && words !== undefined && steps(first).length < all(first).length
        ? [{ code: 'bolt', words, of: all(first).length }]
        : [],
    missing: same || narrowed ? [] : missingDesign(c),
    keys: ['fit.torque', 'fit.tightened', 'call.bolt'],
  };
}
