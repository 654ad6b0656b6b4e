import { type Layout, tensionerIndex } from '@core/drive/layout';

/** What can be asked of a drive on its bench. */
export type Panel =
  | 'setting'
  | 'marks'
  | 'heads'
  | 'wear'
  | 'heat'
  | 'valves'
  | 'table'
  | 'strands'
  | 'drawing_up';
export type Part = { key: string; name: string; panels: readonly Panel[] };

/**
 * The panels by what one is doing, in each part first what matters for this drive: a chain wears before it is hot, a
 * stage without a tensioner has marks and no setting, machined heads are looked at first where they came nearer.
 * @param nearer something was taken off a head, or is tried
 */
export function partsOf(layout: Layout, nearer: boolean): Part[] {
  const adjustable = tensionerIndex(layout) >= 0;
  const banks = (layout.banks ?? []).length > 0;
  const fit: Panel[] = adjustable ? ['setting', 'marks'] : ['marks', 'setting'];
  const wear: Panel[] = layout.kind === 'chain' ? ['wear', 'heat'] : ['heat', 'wear'];
  return [
    {
      key: 'fit',
      name: 'Setting, marks',
      panels: nearer && banks ? ['heads', ...fit] : [...fit, 'heads'],
    },
    {
      key: 'wear',
      name: 'Wear, heat',
      panels: [...wear, 'valves'],
    },
    { key: 'table', name: 'Table, drawing up', panels: ['table', 'strands', 'drawing_up'] },
  ];
}

export const PANEL_NAMES: Record<Panel, string> = {
  setting: 'Setting',
  marks: 'Marks',
  heads: 'Heads, block and gasket',
  wear: 'Wear',
  heat: 'Heat',
  valves: 'Valves and pistons',
  table: 'Table of all figures',
  strands: 'Strands and slots',
  drawing_up: 'Drawing up',
};
