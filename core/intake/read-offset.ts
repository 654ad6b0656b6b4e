import { agreed } from '@core/quantity/agreed';
import { must, nth } from '@core/quantity/must';
import { reluctorOf } from '@core/trace/drive-teeth';
import { toldOffset } from '@core/trace/told-offset';
import { stagesFor } from '@core/catalogue/find-records';
import type { IntakeContext } from './context';
import type { Figure } from './figures';
import { groupBy, hasPhrase } from './phrases';
import type { Proposal } from './proposal';
import { moodOf } from './read-choices';
import { tokenAt, type Speech } from './said';
import type { Token } from './text';
import { WORDS } from './words';

const SENSES = /^(late|later|early|earlier|advanced?|retarded|behind|ahead|lag\w*|lead\w*)$/;

/** How far a cam stands off, told in degrees of a shaft or in teeth of the sensor's wheel; which cam, and which wheel. */
export function readOffset(said: Speech, ctx: IntakeContext, engine: string | undefined): Proposal[] {
  const drive = engine === undefined ? undefined : wheelOf(ctx, engine);
  const out: Proposal[] = [];
  for (const sentence of said.sentences) {
    if (!sentence.some((t) => SENSES.test(t.low))) continue;
    const text = plainDigits(sentence, said);
    const sensor = hasPhrase(sentence, WORDS.ofSensor);
    const told = /\b(\d{2,3})[ -]+(?:minus|less)[ -]+(\d)\b|\b(\d{2,3})-(\d)\b/i.exec(text);
    const named = told ? `${told[1] ?? told[3]}-${told[2] ?? told[4]}` : undefined;
    const span = { from: nth(sentence, 0).from, to: must(sentence.at(-1)).to };
    const parts = sensor ? groupBy(sentence, 'clause') : [sentence];
    let cam: string | undefined;
    for (const part of parts) {
      cam = camIn(part) ?? cam;
      const words = plainDigits(part, said);
      const read = toldOffset(words.replace(/\blater\b/gi, 'late'), named ?? drive, !sensor);
      const put = (key: string, value: string | number, u?: number) =>
        out.push(
          moodOf(
            { key, value, how: 'reported', sure: 'likely', spans: [span], ...(u === undefined ? {} : { u }) },
            said,
          ),
        );
      if (read.ok) {
        put('trace.offset', Number(read.value.deg.toFixed(3)), read.value.u);
        const wheel = named ?? read.value.wheel;
        if (wheel !== undefined) put('trace.wheel', wheel);
        const own = cam ?? camIn(sentence);
        if (own !== undefined) put('trace.cam', own);
      } else if (sensor && out.length > 0 && camIn(part) !== undefined && hasPhrase(part, WORDS.inLine)) {
        put('trace.offset', 0, 0.5);
        put('trace.cam', must(camIn(part)));
      }
    }
  }
  return out;
}

const camIn = (part: readonly Token[]): string | undefined => {
  const said = part.find(
    (t) => /^(intake|exhaust)$/.test(t.low) && !hasPhrase(part, ['didnt do', 'not done']),
  );
  return said?.low;
};

/** A sentence with its numbers in digits, and teeth written out, as offsets are read. */
function plainDigits(part: readonly Token[], said: Speech): string {
  const first = tokenAt(said, nth(part, 0).from);
  let out = '';
  for (let i = 0; i < part.length; i++) {
    const f: Figure | undefined = said.figureAt.get(first + i);
    if (f) {
      out += `${Number(f.value.toFixed(4))} `;
      i += f.digits - 1;
      continue;
    }
    const t = nth(part, i);
    out += `${t.low === 't' ? 'teeth' : t.text} `;
  }
  return out.replace(/ °/g, '°');
}

/** The crank sensor's wheel of an engine, where all of its designs have one. */
function wheelOf({ catalogue }: IntakeContext, engine: string): string | undefined {
  return agreed(
    (catalogue.variantsOf.get(engine) ?? []).map((v) =>
      v.layout === undefined ? undefined : reluctorOf(stagesFor(catalogue, v.layout).map((s) => s.layout)),
    ),
  );
}
