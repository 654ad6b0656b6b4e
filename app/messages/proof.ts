import type { CodeProof, FileProof } from '@core/claim/verify';
import type { SealCheck } from '@core/claim/seal';
import type { Signature, Signer } from '@core/claim/signature';
import { plainText } from '@core/facts/value';
import { dayOf, formatDay } from '@core/quantity/dates';
import { counted } from '../language/plural';
import { fingerprintWords } from './seal';

/** A sentence, and how it is meant: sound, to be looked at, or neither. */
export type Told = { words: string; as: 'sound' | 'look' | 'plain' };

const PARTS = {
  facts: 'the facts',
  catalogue: 'the catalogue that came along',
  file: 'the file around them',
};

/** What the digests of a file say of it. */
export function digestWords({ digest, altered, covers }: FileProof): Told {
  if (digest === 'altered')
    return {
      words: `Changed since it was written: ${altered.map((a) => PARTS[a.part]).join(', ')}.`,
      as: 'look',
    };
  return digest === 'verified'
    ? { words: 'The file is as it was written: facts, catalogue and all else.', as: 'sound' }
    : {
        words: `What its fingerprints cover is as it was written (${covers.map((c) => PARTS[c]).join(', ')}); it is of an earlier make and says nothing of the rest.`,
        as: 'plain',
      };
}

/** How a file stands to the records here. */
export function hereWords({ here }: FileProof): Told[] {
  if (!here) return [{ words: 'This case is not known here.', as: 'plain' }];
  const out: Told[] = [];
  if (here.differ.length > 0)
    out.push({
      words: `${counted(here.differ.length, 'fact says', 'facts say')} something else than here.`,
      as: 'look',
    });
  if (here.newerHere > 0)
    out.push({
      words: `${counted(here.newerHere, 'fact', 'facts')} of this case came later or elsewhere, and the file has not.`,
      as: 'plain',
    });
  if (here.newerThere > 0)
    out.push({
      words: `${counted(here.newerThere, 'fact', 'facts')} of the file are not here yet.`,
      as: 'plain',
    });
  return out.length > 0 ? out : [{ words: 'It holds what is here, fact for fact.', as: 'sound' }];
}

/** What an issue proves: that nothing changed, and whose it is. */
export function issueProofWords(c: SealCheck, who: (key: string) => Signer): Told[] {
  const head = `Issue ${c.issue}, ${formatDay(dayOf(c.seal.at), 'named')}, ${c.seal.by}, seal ${fingerprintWords(plainText(c.seal.value))}`;
  const seal: Told =
    c.verdict === 'intact'
      ? { words: `${head}: unchanged.`, as: 'sound' }
      : c.verdict === 'void'
        ? { words: `${head}: no seal, it names no fact.`, as: 'look' }
        : { words: `${head}: changed, a sealed fact was altered or is missing.`, as: 'look' };
  const later: Told[] =
    c.later > 0
      ? [
          {
            words: `${counted(c.later, 'fact was', 'facts were')} filed that it does not cover.`,
            as: 'plain',
          },
        ]
      : [];
  return [seal, ...later, ...signedWords(c, who)];
}

/** Whose signature is on an issue. @param c only what is unchanged can be anybody's */
export function signedWords(
  c: Pick<SealCheck, 'verdict' | 'signatures'>,
  who: (key: string) => Signer,
): Told[] {
  if (c.signatures.length === 0)
    return [{ words: 'Not signed: the seal says that nothing changed, not who issued it.', as: 'plain' }];
  return c.signatures.map((s) => signatureWords(s, c.verdict, who(s.key)));
}

function signatureWords(s: Signature, verdict: SealCheck['verdict'], who: Signer): Told {
  if (!s.holds) return { words: `The signature by key ${s.code} does not hold.`, as: 'look' };
  const still = verdict === 'intact' ? 'and unchanged' : 'but changed since';
  const as = verdict === 'intact' ? 'sound' : 'look';
  switch (who.is) {
    case 'this_desk':
      return { words: `Issued by this desk, ${still} (key ${s.code}).`, as };
    case 'known':
      return { words: `Issued by ${who.name}, ${still} (key ${s.code}).`, as };
    case 'unknown':
      return {
        words: `Signed by key ${s.code}, which is not known here: ask the desk that sent it for its code.`,
        as: verdict === 'intact' ? 'plain' : 'look',
      };
  }
}

/** What the code of a paper comes to. */
export function paperCodeWords(p: CodeProof, who: (key: string) => Signer): Told[] {
  switch (p.is) {
    case 'unknown_case':
      return [
        {
          words: 'The code is of a case that is not known here. Choose the case’s file instead.',
          as: 'plain',
        },
      ];
    case 'no_issue':
      return [{ words: 'The case is here, and has no such issue: the paper is none of it.', as: 'look' }];
    case 'other':
      return [
        {
          words: `The case has an issue ${p.check.issue}, and its seal is another than the one on the paper: the paper is none of it.`,
          as: 'look',
        },
      ];
    case 'found':
      return [{ words: 'The paper is of this issue.', as: 'sound' }, ...issueProofWords(p.check, who)];
  }
}
