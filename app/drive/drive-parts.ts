import { type Layout, tensionerIndex } from '@core/drive/layout';

/** What can be asked of a drive on its store. */
export type DrivePanel =
  | 'setting'
  | 'marks'
  | 'heads'
  | 'wear'
  | 'heat'
  | 'valves'
  | 'table'
  | 'strands'
  | 'drawing_up';
export type DrivePart = { key: string; name: string; panels: readonly DrivePanel[] };

/**
 * The panels by what one is doing, in each part first what matters for this drive: a chain wears before it is hot, a
 * stage without a tensioner has marks and no setting, machined heads are looked at first where they came nearer.
 * @param nearer something was taken off a head, or is tried
 */
export function drivePartsOf(layout: Layout, nearer: boolean): DrivePart[] {
  const adjustable = tensionerIndex(layout) >= 0;
  const banks = (layout.banks ?? []).length > 0;
  const fit: DrivePanel[] = adjustable ? ['setting', 'marks'] : ['marks', 'setting'];
  const wear: DrivePanel[] = layout.kind === 'chain' ? ['wear', 'heat'] : ['heat', 'wear'];
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

export const PANEL_NAMES: Record<DrivePanel, string> = {
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
