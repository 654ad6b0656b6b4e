import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { ShelfError } from '@core/shelf/exchange';
import type { ShelfStanding } from '@core/shelf/standing';

/** Which shelf a browser is joined to, as it is kept. */
export const LinkSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('server'), desk: z.string(), name: z.string() }),
  z.strictObject({
    kind: z.literal('folder'),
    name: z.string(),
    folder: z.custom<FileSystemDirectoryHandle>((h) => typeof h === 'object' && h !== null),
  }),
]);
export type ShelfLink = z.infer<typeof LinkSchema>;

/** How a browser stands to its shelf after something went wrong. */
export function standingOnError(e: ShelfError): ShelfStanding {
  switch (e.code) {
    case 'shut_out':
      return { is: 'shut_out' };
    case 'away':
      return { is: 'away', detail: e.detail };
    case 'behind':
      return { is: 'away', detail: 'busy' };
    case 'unreadable':
      return { is: 'refused', detail: `${e.log} ${e.at}` };
    case 'other_content':
      return { is: 'refused', detail: e.id };
    case 'refused':
      return { is: 'refused', detail: e.detail };
  }
}
