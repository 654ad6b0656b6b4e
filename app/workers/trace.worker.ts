import { type Overview, overviewOf, stretchOf } from '@core/trace/overview';
import { serveJobs } from '../threads/worker-client';
import { traceOf } from './read-trace';
import type { CaptureSlot, TraceJobs } from './trace.protocol';

// What was read last stays here for each slot, so that any stretch of it can be drawn without sending samples about.
const kept = new Map<CaptureSlot, Overview[]>();

serveJobs<TraceJobs>(
  {
    read: ({ slot, ...ask }, line) => {
      kept.delete(slot);
      return traceOf(ask, line, (capture) =>
        kept.set(
          slot,
          capture.channels.map((c) => overviewOf(c.samples)),
        ),
      );
    },
    stretch: ({ slot, from, to, columns }) =>
      Promise.resolve((kept.get(slot) ?? []).map((o) => stretchOf(o, from, to, columns))),
  },
  self,
);
