import { floatAt, must, nth } from '@core/quantity/must';
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
  /** Share by which the speed swings with the compressions, how many of them come in 720 degrees (4), and by how much it grows over the capture. */
  ripple: number;
  compressions?: number;
  drift?: number;
  cycles: number;
  rateHz: number;
  /** A square wave, or a swing whose height grows with speed; upside down. */
  crank: 'square' | 'swing';
  /** Of each cam: a square wave, or a short swing at each rising edge, whose middle is the edge. */
  camKind?: 'square' | 'swing';
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
  /** Share of the teeth that leave no edge; stretches of some teeth in which the crank's wire is off. */
  lost?: number;
  dropouts?: number;
  /** Short spikes on the cam's wire. */
  spikes?: number;
};
export type SimulatedCapture = {
  crank: Float32Array;
  cam: Float32Array;
  others: Float32Array[];
  stepS: number;
  /** What the offset cannot be told better than with 95 %, degrees: two standard deviations of a mean of edges that jitter, about teeth that do, sampled in steps (Cramér and Rao). */
  limitDeg: number;
};

/** Teeth that a drop-out takes, volts of a spike, and the height and half width, degrees, of a cam's swing. */
const DROPPED = 4;
const SPIKE = 1.2;
const PULSE = { volts: 1.6, deg: 4 };

/** The swing of a cam's teeth at an angle: up and down, through nought in the middle of each. */
function pulseOf(
  k: { upcoming: readonly SimulatedEdge[]; near: number },
  deg: number,
  upsideDown: boolean,
): number {
  while (k.near + 1 < k.upcoming.length && nth(k.upcoming, k.near).deg < deg - 5 * PULSE.deg) k.near++;
  let v = 0;
  for (let j = k.near; j < k.upcoming.length && nth(k.upcoming, j).deg < deg + 5 * PULSE.deg; j++) {
    const { deg: at, rising } = nth(k.upcoming, j);
    const x = (deg - at) / PULSE.deg;
    if (rising) v -= PULSE.volts * x * Math.exp(0.5 - (x * x) / 2);
  }
  return upsideDown ? -v : v;
}

/** A capture of crank and cam by a stand-in of a capture box. */
export function simulateCapture(c: CaptureOf): SimulatedCapture {
  const random = randomFrom(c.seed);
  const normal = () => normalFrom(random);
  const n = c.teeth.length;
  const pitch = 360 / n;
  const omega = c.rpm * 6;
  const slowest = (1 - c.ripple) * Math.min(1, 1 + (c.drift ?? 0) * 1.2);
  const total = Math.ceil(((c.cycles + 0.3) * 720 * c.rateHz) / (omega * slowest));
  const crank = new Float32Array(total);
  const startDeg = 360 * random();
  const beats = (c.compressions ?? 4) / 2;
  const offAt = Array.from({ length: c.dropouts ?? 0 }, () => Math.floor(total * (0.1 + 0.7 * random())));
  const offFor = Math.round(((DROPPED * pitch) / omega) * c.rateHz);
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
    return {
      samples: new Float32Array(total),
      upcoming,
      next,
      high: !(upcoming[next]?.rising ?? true),
      near: 0,
    };
  });
  let deg = startDeg;
  let used = total;
  for (let i = 0; i < total; i++) {
    const grown = 1 + (c.drift ?? 0) * ((deg - startDeg) / (c.cycles * 720));
    const swing = grown * (1 + c.ripple * Math.sin((deg * beats * 2 * Math.PI) / 360));
    const slot = Math.floor(deg / pitch);
    const there = nth(c.teeth, ((slot % n) + n) % n);
    const { slip, gone } = toothAt(slot);
    const within = (deg - slot * pitch - slip) / pitch;
    let v = 0;
    if (c.crank === 'square') v = there && !gone && within >= 0.25 && within < 0.75 ? 5 : 0.1;
    else if (there && !gone && within >= 0 && within < 1)
      v = -0.012 * c.rpm * swing * Math.sin(2 * Math.PI * within) * -1;
    if (offAt.some((at) => i >= at && i < at + offFor)) v = c.crank === 'square' ? 0.1 : 0;
    if (c.clip !== undefined) v = Math.max(-c.clip, Math.min(c.clip, v));
    const t = i / c.rateHz;
    const hum = (c.hum ?? 0) * Math.sin(2 * Math.PI * 50 * t);
    crank[i] = (c.upsideDown ? -v : v) + hum + c.noise * normal();
    for (const k of cams) {
      for (; k.next < k.upcoming.length && nth(k.upcoming, k.next).deg <= deg; k.next++)
        k.high = nth(k.upcoming, k.next).rising;
      const upright = k.high !== (c.camUpsideDown ?? false);
      k.samples[i] =
        (c.camKind === 'swing' ? pulseOf(k, deg, c.camUpsideDown ?? false) * swing : upright ? 5 : 0.1) +
        c.noise * normal();
    }
    deg += (omega * swing) / c.rateHz;
    if (deg - startDeg > (c.cycles + 0.2) * 720) {
      used = i + 1;
      break;
    }
  }
  for (let n = 0; n < (c.spikes ?? 0); n++)
    for (const k of cams) {
      const at = Math.floor(used * random());
      for (let i = at; i < Math.min(used, at + 3); i++) k.samples[i] = floatAt(k.samples, i) + SPIKE;
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
