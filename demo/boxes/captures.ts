import { strToU8, zipSync } from 'fflate';
import * as z from 'zod';
import { bytesToHex } from '@noble/hashes/utils.js';
import { sha256 } from '@noble/hashes/sha2.js';
import type { Pack } from '@core/catalogue/pack';
import { stagesOf } from '@core/drive/stages';
import type { FileRef } from '@core/facts/fact';
import { SHIPPED_POLICY } from '@core/policy/policy';
import { BOX_DIALECTS, BOX_FAULTS, boxCapture } from '@core/simulate/capture-box';
import { driveTeeth, knownGood } from '@core/trace/drive-teeth';
import { readWheel } from '@core/trace/wheel';

/** A capture that lies with a box: what the simulated capture box recorded of its engine. */
export const CaptureOfSchema = z.strictObject({
  name: z.string(),
  fault: z.enum(BOX_FAULTS),
  dialect: z.enum(BOX_DIALECTS),
});
export type CaptureSketch = z.infer<typeof CaptureOfSchema>;
export type DemoFile = { ref: FileRef; bytes: Uint8Array };

/** Samples a second: enough for a cranking engine, and a file that is soon fetched. */
const RATE_HZ = 4000;
/** A zip says when its files were written; the demo's were on one day, so that its bytes are the same every time. */
const WRITTEN = new Date(2026, 6, 1);

/** The zipped export of a capture of a kit's drive. */
export function recorded(pack: Pack, engine: string, kit: string, c: CaptureSketch, seed: number): DemoFile {
  const variants = pack.applications.flatMap((a) => (a.kit === kit ? [a.variant] : []));
  const variant = pack.variants.find((v) => variants.includes(v.id) && v.engine === engine);
  const stages = variant?.layout === undefined ? undefined : stagesOf(pack.layouts, variant.layout);
  const layouts = stages?.ok ? stages.value.map((s) => s.layout) : [];
  const [good, teeth] = [knownGood(layouts, SHIPPED_POLICY.traceDesignU), driveTeeth(layouts)];
  const wheel = good.ok && good.value ? readWheel(good.value.wheel) : undefined;
  if (!teeth || !wheel?.ok) throw new Error(`${c.name}: the drive of ${kit} names no sensors`);
  const text = boxCapture({
    engine,
    fault: c.fault,
    dialect: c.dialect,
    seed,
    zCrank: teeth.zCrank,
    teeth: wheel.value.teeth,
    cams: teeth.cams.length,
    rateHz: RATE_HZ,
  });
  const bytes = zipSync({ [`${c.name}.csv`]: strToU8(text) }, { level: 9, mtime: WRITTEN });
  const name = `${c.name}.zip`;
  return {
    bytes,
    ref: { hash: bytesToHex(sha256(bytes)), name, type: 'application/zip', bytes: bytes.length },
  };
}
