import type { CamPattern } from '@core/trace/pattern';
import type { CycleView } from '@core/trace/cycle-view';
import type { Capture, CaptureError } from '@core/trace/read-capture';
import type { Trace, TraceError } from '@core/trace/trace';

/** What the page keeps of a capture: not its samples. */
export type TraceRead = {
  name: string;
  wheel: string;
  slots: number;
  even: boolean;
  crankKind: Trace['crankKind'];
  lost: number;
  double: number;
  turns: number;
  channels: string[];
  roles: Trace['roles'];
  cams: { name: string; pattern?: CamPattern; error?: string }[];
  samples: number;
  stepS: number;
  gaps: Capture['gaps'];
  refused: number[];
  head: Capture['head'];
  view: CycleView;
};
export type TraceFailure =
  | CaptureError
  | TraceError
  | { code: 'no_table_in_zip'; names: string[] }
  | { code: 'broken_zip'; detail: string };
export type TraceAsk = { blob: Blob; name: string; wheel?: string; stepS?: number };
export type TraceReply = { ok: true; value: TraceRead } | { ok: false; error: TraceFailure };
export type TraceJobs = { read: { input: TraceAsk; progress: number; output: TraceReply } };
