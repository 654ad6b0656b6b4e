import { serve } from './door';
import { traceOf } from './read-trace';
import type { TraceJobs } from './trace.protocol';

serve<TraceJobs>({ read: traceOf }, self);
