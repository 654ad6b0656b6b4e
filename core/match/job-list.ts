import type { Catalogue } from '@core/catalogue/find-records';
import type { JobItem, Kit } from '@core/catalogue/pack';

/** Where each thing that a job needs comes from. */
export type JobLine = {
  item: JobItem;
  source: 'in_kit' | 'order' | 'reuse_after_check' | 'replace_now';
  saves: number;
};

/**
 * What the job on this drive needs, against the contents of a kit. A part that the kit holds in full is in it; one that can
 * be checked may be used again; one that is reachable only now is offered with its cost now against later.
 */
export function jobList(cat: Catalogue, variant: string, kit: Kit | undefined): JobLine[] {
  const held = new Map((kit?.contents ?? []).map((c) => [c.part, c.quantity]));
  return (cat.jobsOf.get(variant) ?? []).map((item) => {
    const inKit = item.part !== undefined && (held.get(item.part) ?? 0) >= item.quantity;
    const source = inKit
      ? ('in_kit' as const)
      : item.kind === 'reachable_now'
        ? ('replace_now' as const)
        : item.check !== undefined
          ? ('reuse_after_check' as const)
          : ('order' as const);
    return { item, source, saves: item.costLater - item.costNow };
  });
}
