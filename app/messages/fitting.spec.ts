import { demoPack } from '../../demo/catalogue';
import { registryFor, worldOf } from '@core/answer/world';
import { FINDINGS } from '@core/examination/finding-data';
import { catalogueOf, stagesFor } from '@core/catalogue/find-records';
import type { IssueReason } from '@core/catalogue/pack-issue';
import { judgePair, readTorque } from '@core/catalogue/torque-plan';
import { CAUSES, weighedFindings } from '@core/cause/cause-data';
import { FAULTS } from '@core/claim/faults';
import { brokenGates, wayBack } from '@core/fitting/order';
import type { RecoverError } from '@core/fitting/recover';
import { makeSheet } from '@core/fitting/sheet';
import type { ReturnError } from '@core/fitting/sheet-return';
import { POLICY_QUESTIONS, SHIPPED_POLICY } from '@core/policy/policy';
import { findingWords } from './answers';
import {
  wayBackWords,
  brokenWords,
  oddWords,
  returnErrorWords,
  rulesOn,
  shownWords,
  stepName,
  wantedWords,
} from './fitting';
import { issueSentence } from './packs';
import { moveWords, recoverErrorWords } from './recover';
import { torquePairWords, torqueStagesWords, spokenPlan } from './torque';

const cat = catalogueOf(demoPack());
const registry = registryFor(worldOf(cat));
const voice = { registry, notation: { dateOrder: 'dmy' as const, units: {} }, cat, thing: () => '' };
const sheets = [...cat.variants.values()].map((v) =>
  makeSheet(cat, v, stagesFor(cat, v.layout!), SHIPPED_POLICY),
);

describe('sentences about the fitting', () => {
  it('name whatever can be weighed, a fault of a sheet by its wording', () => {
    for (const finding of weighedFindings(CAUSES))
      expect(FINDINGS.has(finding) || registry.has(finding))
        .withContext(finding)
        .toBeTrue();
    for (const f of FAULTS)
      expect(findingWords({ finding: 'sheet.fault', value: f.code }, voice)).toContain(f.wording);
  });

  it('name both steps of a broken gate by number, on every sheet, and the place where the work begins again', () => {
    for (const sheet of sheets) {
      const number = (id: string) => sheet.steps.find((s) => s.id === id)!.number;
      for (const gate of sheet.gates) {
        const words = brokenWords({ gate, how: 'reversed' }, sheet);
        expect(words).toContain(`tep ${number(gate.before)},`);
        expect(words).toContain(`tep ${number(gate.after)},`);
        expect(words.endsWith(gate.why)).toBeTrue();
        const performed = { done: [gate.after], skipped: new Set([gate.before]) };
        const back = wayBack(sheet.steps, sheet.gates, performed, brokenGates(performed, [gate]));
        const said = wayBackWords({ back }, sheet).join(' ');
        if (back.way) expect(said).toContain(`tep ${number(back.way.startAt)},`);
        else expect(said).toContain('Cannot be made up for');
        expect(said).not.toMatch(/undefined|NaN/);
      }
      for (const s of sheet.steps) {
        expect(stepName(sheet, s.id).length).toBeLessThan(90);
        for (const [how, code] of Object.entries(s.faults ?? {})) {
          const words = shownWords({ code, step: s.id, how: how as 'wrong', facts: [] }, sheet);
          expect(words).toContain(code);
          expect(words).toContain(FAULTS.find((f) => f.code === code)!.wording);
        }
        for (const ask of s.proof?.asks ?? []) {
          const words = oddWords({ code: 'outside', step: s.id, ask, value: 7.25, facts: [] }, sheet);
          expect(words).toContain('7.3');
          if (ask.from !== undefined) expect(wantedWords(ask)).toMatch(/\d/);
        }
      }
      expect(rulesOn(sheet, SHIPPED_POLICY).length).toBe(sheet.shapedBy.length);
      for (const line of rulesOn(sheet, SHIPPED_POLICY))
        expect(POLICY_QUESTIONS.some((c) => c.options.some((o) => o.sheet === line))).toBeTrue();
    }
  });

  it('say of every refused return that nothing was filed, and of every refused procedure what and where', () => {
    const errors: ReturnError[] = [
      { code: 'code_broken' },
      { code: 'code_of_other_length' },
      { code: 'cut', line: 3 },
      { code: 'shape', place: 'steps.2.state', detail: 'x' },
      { code: 'edited' },
      { code: 'other_case', tag: '2041' },
      { code: 'other_version', sheet: 'abcd1234' },
      { code: 'twice' },
      { code: 'step_unknown', step: 'a.b' },
      { code: 'impossible', step: 'a.b', value: 900 },
    ];
    const said = errors.map(returnErrorWords);
    for (const words of said) expect(words).toMatch(/Nothing was filed|nothing was filed/);
    expect(new Set(said).size).toBe(errors.length);
    expect(said[5]).toContain('2041');
    expect(said[9]).toContain('900');
    const first = readTorque('42 N·m');
    const second = readTorque('50 lbf·ft');
    if (!first.ok || !second.ok) return fail('unread');
    const reasons: IssueReason[] = [
      { code: 'torque_unreadable', typed: 'tight' },
      { code: 'torque_no_unit', typed: '42' },
      { code: 'torque_pair', typed: 'x', pair: judgePair(first.value, second.value) },
      { code: 'block_unknown', block: 'gone' },
      { code: 'block_loop', block: 'me' },
      { code: 'param_missing', block: 'b', param: 'pin' },
      { code: 'step_twice' },
      { code: 'gate_step_unknown', step: 'x' },
      { code: 'gate_step_lacking', step: 'x' },
      { code: 'gate_cycle', steps: ['a', 'b', 'a'] },
    ];
    for (const reason of reasons)
      expect(issueSentence({ table: 'procedures', row: 4, column: 'bolt', reason })).toMatch(
        /^procedures, line 4, bolt: .*\.$/,
      );
  });

  it('read torques out in their stages, and say which of a pair governs by how much', () => {
    const all = sheets.flatMap((s) => s.steps).filter((s) => s.torque);
    expect(all.length).toBeGreaterThan(100);
    for (const { torque } of all) {
      const words = spokenPlan(torque!);
      for (const stage of torque!.stages) {
        if (stage.kind === 'torque') expect(words).toContain(`${stage.printed.value} ${stage.printed.unit}`);
        if (stage.kind === 'angle') expect(words).toContain(`${stage.deg}°`);
      }
      expect(words.includes('left-hand')).toBe(torque!.leftHand === true);
      expect(/\bnew /i.test(words)).toBe(torque!.singleUse === true);
      expect(torqueStagesWords(torque!.stages)).not.toContain('undefined');
    }
    const [a, b] = [readTorque('100 N·m'), readTorque('100 lbf·ft')];
    if (!a.ok || !b.ok) return fail('unread');
    expect(torquePairWords(judgePair(a.value, b.value))).toContain('36 % apart. 100 N·m governs');
    expect(torquePairWords(judgePair(b.value, a.value))).toContain('100 N·m governs');
  });

  it('say of every move whose shaft, which way, how far and with what room', () => {
    expect(moveWords({ turn: 'cam', wheel: 'c', fromDeg: 0, byDeg: -90, gapMm: 2.34 }, 'left cam')).toContain(
      'left cam by itself 45° against the running direction. Least room on the way: 2.3 mm.',
    );
    expect(moveWords({ turn: 'crank', fromDeg: 0, byDeg: 90, gapMm: Infinity }, '')).toContain(
      'No valve is open',
    );
    const errors: RecoverError[] = [
      { code: 'touching', valve: 'inlet', cylinder: '3' },
      { code: 'no_safe_range' },
      { code: 'no_way' },
    ];
    for (const e of errors) expect(recoverErrorWords(e)).toMatch(/Turn nothing|no cam may be turned/);
  });
});
