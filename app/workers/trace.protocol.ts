import type { CamPattern } from '@core/trace/pattern';
import type { CycleView } from '@core/trace/cycle-view';
import type { Capture, CaptureError, SaidOfFile } from '@core/trace/read-capture';
import type { WheelError } from '@core/trace/wheel';
import type { UnpackError } from './unpack';
import type { Roles, Trace, TraceError } from '@core/trace/trace';

/** What the page keeps of a capture: not its samples. */
export type TraceRead = {
  name: string;
  wheel: string;
  /** Slots of the wheel around a turn from where angles begin: true where there is a tooth. */
  teeth: readonly boolean[];
  /** Degrees of the crank after which its wheel looks the same, so that offsets hold only up to them: 360 with a gap that stands once. */
  period: number;
  crankKind: CamPattern['kind'];
  lost: number;
  double: number;
  turns: number;
  channels: string[];
  roles: Trace['roles'];
  cams: { name: string; pattern?: CamPattern; error?: string }[];
  samples: number;
  startS: number;
  stepS: number;
  /** Engine speed over the recording: seconds and revolutions a minute, turn by turn. */
  speed: { s: number; rpm: number }[];
  gaps: Capture['gaps'];
  refused: number[];
  head: Capture['head'];
  view: CycleView;
};
export type TraceFailure =
  | CaptureError
  | TraceError
  | WheelError
  | { code: 'no_table_in_zip'; names: string[] }
  | UnpackError;
/** Captures that lie side by side: of the engine in question, and the other one. */
export type CaptureSlot = 'mine' | 'reference';
export type TraceAsk = {
  slot: CaptureSlot;
  blob: Blob;
  name: string;
  /** What is said of it instead of found: the crank's wheel, which channel is which, and how its file is written. */
  wheel?: string;
  roles?: Roles;
} & SaidOfFile;
/** A stretch of what was last read for a slot, samples from one up to another, in columns. */
export type StretchAsk = { slot: CaptureSlot; from: number; to: number; columns: number };
export type TraceReply = { ok: true; value: TraceRead } | { ok: false; error: TraceFailure };
export type TraceJobs = {
  read: { input: TraceAsk; progress: number; output: TraceReply };
  /** Least and most of each column, channel by channel; nothing where nothing was read. */
  stretch: { input: StretchAsk; progress: never; output: Float32Array[] };
};
