import { sheetFor } from '@core/fitting/sheet';
import { policyWith } from '@core/policy/policy';
import { type AnsweredQuestion, type Case, designName, type ToolOf } from './advice';
import { designsOf, missingDesign, missingEngine } from './missing';

/**
 * Whether the work can be done without its tools: what stands in for each, with its risk, as the sheet has it where a house
 * accepts it. It is told as well where this house does not, so that the caller knows what he would risk; the house's word leads.
 */
export function adviseTools(c: Case): AnsweredQuestion {
  if (!c.a.engine) return missingEngine();
  const { policy } = c.a;
  const accepting = policyWith({ ...policy.chosen, locking_tools: 'substitutes' });
  const designs = designsOf(c).map((d) => ({
    name: designName(d.variant),
    tools: toolsOf(sheetFor(c.world.catalogue, d.variant, d.stages, accepting).steps),
  }));
  const [first, ...rest] = designs;
  if (!first || designs.every((d) => d.tools.length === 0))
    return { standing: 'no', lead: { code: 'no_substitute' }, because: [], missing: [] };
  if (rest.some((d) => JSON.stringify(d.tools) !== JSON.stringify(first.tools)))
    return {
      standing: 'open',
      lead: { code: 'design_open' },
      because: [{ code: 'designs', names: designs.map((d) => d.name) }],
      missing: missingDesign(c),
    };
  const allowed = policy.chosen['locking_tools'] === 'substitutes';
  return {
    standing: allowed ? 'if' : 'no',
    lead: { code: 'tools', allowed, tools: first.tools },
    because: [],
    missing: [],
  };
}

/** Tools of a sheet for which something can stand in, each once. */
function toolsOf(
  steps: readonly {
    tool?: { name: string; instead?: readonly { name: string; risk: string }[] | undefined } | undefined;
  }[],
): ToolOf[] {
  const out = new Map<string, ToolOf>();
  for (const { tool } of steps)
    if (tool?.instead && !out.has(tool.name)) out.set(tool.name, { name: tool.name, instead: tool.instead });
  return [...out.values()];
}
