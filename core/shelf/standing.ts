/** How a browser stands to its shelf. */
export type ShelfStanding =
  | { is: 'none' }
  | { is: 'together' }
  | { is: 'away'; detail: string }
  /** The browser wants to be asked for the folder again. */
  | { is: 'asleep' }
  | { is: 'shut_out' }
  | { is: 'refused'; detail: string };
