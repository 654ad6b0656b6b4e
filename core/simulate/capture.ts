import { must, nth } from '@core/quantity/must';
import { normalFrom, randomFrom } from '@core/quantity/random';

/** A cam edge of a stand-in: crank degrees over 720. */
export type SimulatedEdge = { deg: number; rising: boolean };
/** What a simulated capture box records. Degrees of the crank, seconds, volts. */
export type CaptureOf = {
  seed: number;
  /** True where the crank wheel has a tooth, slot by slot. */
  teeth: readonly boolean[];
  cam: readonly SimulatedEdge[];
  /** By how much the cam comes late, degrees. */
  late: number;
  /** Further cams, each with a sensor and a lateness of its own. */
  others?: readonly { cam: readonly SimulatedEdge[]; late: number }[];
  rpm: number;
  /** Share by which the speed swings four times in 720 degrees. */
  ripple: number;
  cycles: number;
  rateHz: number;
  /** A square wave, or a swing whose height grows with speed; upside down. */
  crank: 'square' | 'swing';
  upsideDown?: boolean;
  camUpsideDown?: boolean;
  /** Standard deviations: of the voltage, of each tooth's and each cam edge's angle. */
  noise: number;
  jitterDeg: number;
  /** Hum of the mains, volts. */
  hum?: number;
  /** Where a swing is cut off, volts. */
  clip?: number;
  /** How far a phaser wanders, degrees, over the capture. */
  phaser?: number;
  /** Share of the teeth that leave no edge. */
  lost?: number;
};
export type SimulatedCapture = {
  crank: Float32Array;
  cam: Float32Array;
  others: Float32Array[];
  stepS: number;
  /** What the offset cannot be told better than with 95 %, degrees: two standard deviations of a mean of edges that jitter, about teeth that do, sampled in steps (Cramér and Rao). */
  limitDeg: number;
};

/** A capture of crank and cam by a stand-in of a capture box. */
export function simulateCapture(c: CaptureOf): SimulatedCapture {
  const random = randomFrom(c.seed);
  const normal = () => normalFrom(random);
  const n = c.teeth.length;
  const pitch = 360 / n;
  const omega = c.rpm * 6;
  const total = Math.ceil(((c.cycles + 0.3) * 720 * c.rateHz) / (omega * (1 - c.ripple)));
  const crank = new Float32Array(total);
  const startDeg = 360 * random();
  // Every tooth and every cam edge of the capture has its own error of angle.
  const slips = new Map<number, { slip: number; gone: boolean }>();
  const toothAt = (slot: number) => {
    let own = slips.get(slot);
    if (!own) slips.set(slot, (own = { slip: c.jitterDeg * normal(), gone: random() < (c.lost ?? 0) }));
    return own;
  };
  const turns = c.cycles + 3;
  const cams = [{ cam: c.cam, late: c.late }, ...(c.others ?? [])].map(({ cam: edges, late }) => {
    const upcoming: SimulatedEdge[] = [];
    for (let cycle = -1; cycle < turns; cycle++)
      for (const e of [...edges].sort((x, y) => x.deg - y.deg)) {
        const wander = (c.phaser ?? 0) * Math.sin((2 * Math.PI * cycle) / 5);
        upcoming.push({
          deg: cycle * 720 + e.deg + late + wander + c.jitterDeg * normal(),
          rising: e.rising,
        });
      }
    const next = upcoming.findIndex((e) => e.deg > startDeg);
    return { samples: new Float32Array(total), upcoming, next, high: !(upcoming[next]?.rising ?? true) };
  });
  let deg = startDeg;
  let used = total;
  for (let i = 0; i < total; i++) {
    const swing = 1 + c.ripple * Math.sin((deg * 4 * Math.PI) / 360);
    const slot = Math.floor(deg / pitch);
    const there = nth(c.teeth, ((slot % n) + n) % n);
    const { slip, gone } = toothAt(slot);
    const within = (deg - slot * pitch - slip) / pitch;
    let v = 0;
    if (c.crank === 'square') v = there && !gone && within >= 0.25 && within < 0.75 ? 5 : 0.1;
    else if (there && !gone && within >= 0 && within < 1)
      v = -0.012 * c.rpm * swing * Math.sin(2 * Math.PI * within) * -1;
    if (c.clip !== undefined) v = Math.max(-c.clip, Math.min(c.clip, v));
    const t = i / c.rateHz;
    const hum = (c.hum ?? 0) * Math.sin(2 * Math.PI * 50 * t);
    crank[i] = (c.upsideDown ? -v : v) + hum + c.noise * normal();
    for (const k of cams) {
      for (; k.next < k.upcoming.length && nth(k.upcoming, k.next).deg <= deg; k.next++)
        k.high = nth(k.upcoming, k.next).rising;
      k.samples[i] = (k.high !== (c.camUpsideDown ?? false) ? 5 : 0.1) + c.noise * normal();
    }
    deg += (omega * swing) / c.rateHz;
    if (deg - startDeg > (c.cycles + 0.2) * 720) {
      used = i + 1;
      break;
    }
  }
  const sampled = omega / c.rateHz / Math.sqrt(12);
  const [cam, ...others] = cams.map((k) => k.samples.subarray(0, used));
  return {
    crank: crank.subarray(0, used),
    cam: must(cam),
    others,
    stepS: 1 / c.rateHz,
    limitDeg: (2 * Math.hypot(c.jitterDeg, c.jitterDeg, sampled)) / Math.sqrt(c.cycles * c.cam.length),
  };
}
