import type { Catalogue } from '@core/catalogue/find-records';
import type { Kit } from '@core/catalogue/pack';
import { type JobLine, jobList } from '@core/match/job-list';
import type { Answers } from './answers';

/** What a job is planned with: the kit named on the case, else the first current one that fits. */
export const kitOfJob = (a: Pick<Answers, 'kit' | 'kits'>): Kit | undefined =>
  a.kit ?? a.kits.find((k) => k.verdict === 'fits' && k.kit.status === 'current')?.kit;

/** What the job on one design takes: the same lines at every station, by the kit of the job and the policy. */
export const jobsFor = (
  catalogue: Catalogue,
  variant: string,
  a: Pick<Answers, 'kit' | 'kits' | 'policy'>,
): JobLine[] =>
  jobList(catalogue, variant, kitOfJob(a)).filter(
    (l) => a.policy.chosen['around'] !== 'failed' || l.source !== 'replace_now',
  );
