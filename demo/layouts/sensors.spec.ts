import { stagesOf } from '@core/drive/stages';
import { BOX_FAULTS, boxCapture, camOf } from '@core/simulate/capture-box';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { compareCams } from '@core/trace/compare';
import { driveTeeth, type KnownGood, knownGood } from '@core/trace/drive-teeth';
import { CaptureReader } from '@core/trace/read-capture';
import { readTrace } from '@core/trace/trace';
import { togetherOf, traceVerdict } from '@core/trace/verdict';
import { fromFirstTooth, readWheel } from '@core/trace/wheel';
import { demoPack } from '../catalogue';

const pack = demoPack();
const drives = pack.variants.flatMap((v) => {
  const stages = v.layout === undefined ? undefined : stagesOf(pack.layouts, v.layout);
  return stages?.ok ? [{ v, layouts: stages.value.map((s) => s.layout) }] : [];
});
const goodOf = (layouts: (typeof drives)[number]['layouts']): KnownGood => {
  const good = knownGood(layouts, SHIPPED_POLICY.traceDesignU);
  if (!good.ok || !good.value) throw new Error('the drive names no edges');
  return good.value;
};
/** What a capture of the box says of each cam against the catalogue. */
function said({ v, layouts }: (typeof drives)[number], fault: (typeof BOX_FAULTS)[number]) {
  const [good, teeth] = [goodOf(layouts), driveTeeth(layouts)!];
  const wheel = readWheel(good.wheel);
  if (!wheel.ok) throw new Error(good.wheel);
  const ask = { fault, dialect: 'tab', seed: 9, zCrank: teeth.zCrank, rateHz: 5000 } as const;
  const text = boxCapture({ engine: v.engine, ...ask, teeth: wheel.value.teeth, cams: good.cams.length });
  const reader = new CaptureReader();
  reader.push(new TextEncoder().encode(text));
  const capture = reader.finish();
  const trace = capture.ok ? readTrace(capture.value) : undefined;
  if (!trace?.ok) throw new Error(`${v.id} ${fault}: ${JSON.stringify(trace?.error)}`);
  const { clock, cams } = trace.value;
  return cams.map((cam, i) => {
    const { notation, teeth: slots } = clock.wheel;
    const mine = {
      wheel: notation,
      teeth: fromFirstTooth(clock.wheel),
      period: clock.period,
      crankKind: clock.kind,
    };
    const c = compareCams({ ...mine, pattern: cam.pattern! }, { ...good, pattern: good.cams[i]!.pattern });
    if (!c.ok) throw new Error(`${v.id} ${fault}: ${c.error.code}`);
    const at = { sensorSlots: slots.length, zCrank: teeth.zCrank, zCam: teeth.cams[i]!.teeth };
    return traceVerdict(c.value, at, SHIPPED_POLICY.traceToleranceDeg);
  });
}

describe('the edges that the catalogue names', () => {
  // one design of each engine is enough: the box records an engine, not a design
  const engines = [...new Map(drives.map((d) => [d.v.engine, d])).values()];

  it('are of every cam of every drive, within a cycle, up and down in turn', () => {
    expect(engines.length).toBe(pack.engines.length);
    for (const { v, layouts } of drives) {
      const [good, teeth] = [goodOf(layouts), driveTeeth(layouts)!];
      expect(good.cams.map((c) => c.id))
        .withContext(v.id)
        .toEqual(teeth.cams.map((c) => c.id));
      good.cams.forEach((c, i) => expect(c.pattern.edges.length).toBe(camOf(v.engine, i).length));
    }
  });

  it('are met by a good engine, and an engine that is one late at the crank is told so, on every engine', () => {
    for (const drive of engines) {
      const [good, late] = [said(drive, 'good'), said(drive, 'one_late')];
      const even = goodOf(drive.layouts).period < 120;
      for (const v of good)
        expect(v.verdict)
          .withContext(drive.v.id)
          .toBe(even ? 'cannot_tell' : 'in_tolerance');
      for (const v of late)
        expect(v.verdict === 'whole' ? v.at : v.verdict)
          .withContext(drive.v.id)
          .toEqual(even ? 'cannot_tell' : jasmine.arrayContaining([{ wheel: 'crank', teeth: 1 }]));
      if (late.length > 1 && !even) {
        expect(togetherOf(late)).withContext(drive.v.id).toEqual({ together: 'crank', teeth: 1 });
        const apart = togetherOf(said(drive, 'one_cam_late'));
        expect(apart)
          .withContext(drive.v.id)
          .toEqual({ together: 'apart', cams: [0] });
      }
    }
  });
});
