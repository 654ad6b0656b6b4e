import { STATIONS } from '@core/facts/stations';
import { addDays, type Day, dayOf, daysBetween } from '@core/quantity/dates';
import type { CaseSummary, Waits } from './case-summary';

/** What is to be done with a case next: a call that was promised goes before all, and a message is read before anything is asked. */
export type Task = Exclude<Waits, 'told' | 'sealed'> | 'call_back' | 'read';

/** A case that somebody waits for. @property days until it is due; negative when it is late */
export type ToDo = Readonly<{ summary: CaseSummary; task: Task; due: Day; days: number }>;

/** Of a message that nobody read yet, its first words stand where the caller would. */
export const isQuoted = (who: string): boolean => who.startsWith('“');

function taskOf(s: CaseSummary): Task | undefined {
  if (s.back !== undefined) return 'call_back';
  if (s.waits === 'told' || s.waits === 'sealed') return undefined;
  return s.waits === 'call' && isQuoted(s.who) ? 'read' : s.waits;
}

/** A call is due on the day that was promised, a question when it is asked, what was returned or claimed within the house's promise. */
function dueOf(s: CaseSummary, promised: number): Day {
  if (s.back !== undefined) return s.back;
  const opened = dayOf(s.opened);
  return s.kind === 'question' ? opened : addDays(opened, promised);
}

/** Everything that is to be done, what is due first first; of one day the oldest. @param promised days in which the house answers a return or a claim */
export function toDo(summaries: readonly CaseSummary[], promised: number, today: Day): ToDo[] {
  return summaries
    .flatMap((summary): ToDo[] => {
      const task = taskOf(summary);
      if (task === undefined) return [];
      const due = dueOf(summary, promised);
      return [{ summary, task, due, days: daysBetween(today, due) }];
    })
    .sort((a, b) => a.days - b.days || (a.summary.opened < b.summary.opened ? -1 : 1));
}

/** How many things there are to do of each kind, in the order of the work. */
export function tasksOf(list: readonly ToDo[]): { task: Task; count: number }[] {
  const order: Task[] = ['call_back', 'read', 'answer', ...STATIONS, 'issue', 'set_aside'];
  return order
    .map((task) => ({ task, count: list.reduce((n, t) => n + (t.task === task ? 1 : 0), 0) }))
    .filter((t) => t.count > 0);
}
