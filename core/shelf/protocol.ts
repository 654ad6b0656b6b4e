import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, hexToBytes } from '@noble/hashes/utils.js';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import { FactSchema, MOST_FACTS } from '@core/facts/fact';
import { HeadsSchema } from './entry';

/** Facts that are asked for at once. */
export const MOST_ASKED = 5000;
/** Bytes of one request at most, and of one file. */
export const MOST_BYTES = 24 * 1024 * 1024;
export const MOST_FILE_BYTES = 64 * 1024 * 1024;
/** Desks of a shelf, and invitations that are open at once. */
export const MOST_DESKS = 500;
export const MOST_INVITATIONS = 50;

const Id = z.string().min(1).max(80);
const Name = z.string().trim().min(1).max(80);
/** A public key: P-256, uncompressed, hex. */
const Key = z.string().regex(/^04[0-9a-f]{128}$/);
const DeskId = z.string().regex(/^[0-9a-f]{20}$/);
const Secret = z.string().regex(/^[0-9a-z]{20,64}$/);
const When = z.iso.datetime();

/** A desk by its key: the first twenty signs of the SHA-256 of it, which is also the name of its log. */
export const deskIdOf = (key: string): string => bytesToHex(sha256(hexToBytes(key))).slice(0, 20);

/** Headers of a request: whose it is, by which session and which of its requests, and the signature over all of it. */
export const SIGNED_HEADERS = {
  session: 'x-shelf-session',
  count: 'x-shelf-count',
  signature: 'x-shelf-signature',
} as const;
/**
 * What is signed of a request (ECDSA, P-256, SHA-256). The session is the server's own random number, and no count is taken twice within it, so that
 * nothing can be sent again, whatever the clocks say.
 * @param path with its query
 * @param body SHA-256 of the body, lower-case hex; of nothing where there is none
 */
export const requestText = (r: {
  session: string;
  count: number;
  method: string;
  path: string;
  body: string;
}): string => ['hollow-sprocket:request', r.session, String(r.count), r.method, r.path, r.body].join('\n');
/** What a desk signs when it joins, so that nobody joins with a key that is not theirs. */
export const joinText = (j: { code: string; key: string }): string =>
  ['hollow-sprocket:join', j.code, j.key].join('\n');

export const JoinSchema = z.strictObject({
  code: Secret,
  key: Key,
  name: Name,
  signature: z.string().regex(/^[0-9a-f]{128}$/),
});
export const SessionAskSchema = z.strictObject({ desk: DeskId });
export const SessionSchema = z.strictObject({ session: Secret });
export const SinceSchema = z.strictObject({ positions: HeadsSchema });
export const SinceAnswerSchema = z.strictObject({ heads: HeadsSchema, entries: z.array(z.unknown()) });
export const IdsSchema = z.strictObject({ ids: z.array(Id).max(MOST_ASKED) });

/** A desk of a shelf, as the others see it. */
export const ShelfDeskSchema = z.strictObject({
  id: DeskId,
  key: Key,
  name: Name,
  since: When,
  /** It may invite, name and shut out. */
  steward: z.boolean(),
  out: z.boolean(),
});
export type ShelvedDesk = Readonly<z.infer<typeof ShelfDeskSchema>>;
export const DesksSchema = z.strictObject({ desks: z.array(ShelfDeskSchema), me: DeskId });
export const InvitationSchema = z.strictObject({ code: Secret });
/** A change of a desk: named, shut out or let in again. */
export const DeskChangeSchema = z.strictObject({ name: Name.optional(), out: z.boolean().optional() });

/** A summary as a desk made it: of so many facts, with which knowledge; the text is its JSON. */
const ShelvedSummarySchema = z.strictObject({
  case: Id,
  facts: z.number().int().min(1).max(1e6),
  made: z.string().max(80),
  touched: z.string().max(40),
  text: z.string().max(200_000),
});
export type ShelvedSummary = Readonly<z.infer<typeof ShelvedSummarySchema>>;
export const MOST_SUMMARIES = 2000;
export const SummariesSchema = z.strictObject({
  summaries: z.array(ShelvedSummarySchema).max(MOST_SUMMARIES),
});

/** All facts of a case. */
export const CaseFactsSchema = z.strictObject({ facts: z.array(FactSchema).max(MOST_FACTS) });

/** Where somebody is: a case, or none. */
export const HereSchema = z.strictObject({ case: Id.nullable() });
/** Who is in which case now, as the others hear it. */
export const PresenceSchema = z.strictObject({
  here: z.array(z.strictObject({ desk: DeskId, name: Name, case: Id })),
});
export type Presence = Readonly<z.infer<typeof PresenceSchema>>['here'][number];

/** Something of the house that is no fact of a case, by the SHA-256 of its file: the newest of each stands. */
export const OfferSchema = z.strictObject({
  kind: z.enum(['rules', 'catalogue']),
  name: z.string().min(1).max(120),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  at: When,
});
export type HouseOffer = Readonly<z.infer<typeof OfferSchema>>;
export const OffersSchema = z.strictObject({ offers: z.array(OfferSchema.extend({ desk: DeskId })) });

/** In a folder: an offer, and the name of the desk that put it there. */
export const FolderOfferSchema = OfferSchema.extend({ by: Name });
/** In a folder: in which case a desk is, and something that changes each time it says so. */
export const FolderHereSchema = z.strictObject({
  name: Name,
  case: Id.nullable(),
  beat: z.string().min(1).max(80),
});

/** How a shelf refuses. */
export const RefusalSchema = z.strictObject({
  code: z.enum([
    'session',
    'shut_out',
    'behind',
    'other_content',
    'wrong',
    'too_much',
    'code_used',
    'not_steward',
    'unknown',
  ]),
  detail: z.string(),
});
export type ShelfRefusal = Readonly<z.infer<typeof RefusalSchema>>;
