import type { Heard } from './speech';
import { speechOf } from './speech';

/** A browser's recogniser that hears what the test says. */
class Ear {
  static readonly made: Ear[] = [];
  lang = '';
  continuous = false;
  interimResults = false;
  processLocally?: boolean;
  readonly done: string[] = [];
  onresult: ((e: { resultIndex: number; results: never }) => void) | null = null;
  onerror: ((e: { error: string }) => void) | null = null;
  onend: (() => void) | null = null;
  constructor() {
    Ear.made.push(this);
  }
  start = () => void this.done.push('start');
  stop = () => void this.done.push('stop');
  abort = () => void this.done.push('abort');
  hears(resultIndex: number, ...said: [string, boolean][]): void {
    const results = said.map(([transcript, isFinal]) => Object.assign([{ transcript }], { isFinal }));
    this.onresult?.({ resultIndex, results: results as never });
  }
}
const listening = async (browser: object, stop = new AbortController()) => {
  const speech = (await speechOf(browser, 'en-GB'))!;
  const heard: Heard[] = [];
  const under = speech.listen(stop.signal).subscribe((h) => heard.push(h));
  return { here: speech.here, heard, under, stop, ear: Ear.made.at(-1)! };
};

describe('speech', () => {
  it('is there where the browser has it, and stays on this machine only where the browser can', async () => {
    expect(await speechOf({}, 'en-GB')).toBeUndefined();
    const old = await listening({ webkitSpeechRecognition: Ear });
    expect([old.here, 'processLocally' in old.ear && old.ear.processLocally]).toEqual([false, undefined]);
    const asked: unknown[] = [];
    const answering = (answer: () => Promise<string>) =>
      class extends Ear {
        static available = (wanted: unknown) => (asked.push(wanted), answer());
      };
    const able = await listening({ SpeechRecognition: answering(() => Promise.resolve('available')) });
    expect([able.here, able.ear.processLocally, able.ear.lang]).toEqual([true, true, 'en-GB']);
    expect(asked).toEqual([{ langs: ['en-GB'], processLocally: true }]);
    for (const answer of [
      () => Promise.resolve('downloadable'),
      () => Promise.reject(new DOMException('no', 'InvalidStateError')),
    ])
      expect((await listening({ SpeechRecognition: answering(answer) })).here).toBeFalse();
  });

  it('tells what may still change apart from what stays, each once', async () => {
    const { ear, heard } = await listening({ SpeechRecognition: Ear });
    ear.hears(0, ['the belt', false]);
    ear.hears(0, ['The belt is cracked', true], [' at the', false]);
    ear.hears(1, ['The belt is cracked', true], [' at the root', true]);
    expect(heard).toEqual([
      { kind: 'hearing', words: 'the belt' },
      { kind: 'said', words: 'The belt is cracked' },
      { kind: 'hearing', words: 'at the' },
      { kind: 'said', words: 'at the root' },
      { kind: 'hearing', words: '' },
    ]);
  });

  it('ends with what hindered it, without a complaint when it was stopped, and is silent when nobody listens', async () => {
    const refused = await listening({ SpeechRecognition: Ear });
    refused.ear.onerror?.({ error: 'not-allowed' });
    refused.ear.onend?.();
    expect(refused.heard).toEqual([{ kind: 'ended', why: 'refused' }]);
    const strange = await listening({ SpeechRecognition: Ear });
    strange.ear.onerror?.({ error: 'never-heard-of' });
    strange.ear.onend?.();
    expect(strange.heard).toEqual([{ kind: 'ended', why: 'broken' }]);
    const stopped = await listening({ SpeechRecognition: Ear });
    stopped.stop.abort();
    stopped.ear.hears(0, ['and the guide', true]);
    stopped.ear.onerror?.({ error: 'aborted' });
    stopped.ear.onend?.();
    expect(stopped.heard.map((h) => h.kind)).toEqual(['said', 'hearing', 'ended']);
    expect(stopped.heard.at(-1)).toEqual({ kind: 'ended' });
    const left = await listening({ SpeechRecognition: Ear });
    left.under.unsubscribe();
    left.ear.hears(0, ['too late', true]);
    expect([left.heard, left.ear.done]).toEqual([[], ['start', 'abort']]);
  });
});
