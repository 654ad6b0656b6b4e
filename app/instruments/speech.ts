import { InjectionToken } from '@angular/core';
import { Observable } from 'rxjs';

/** Why listening ended without being asked to. */
export type SpeechEnd = 'refused' | 'no_microphone' | 'no_service' | 'no_language' | 'silence' | 'broken';
export type Heard =
  /** Words as they are understood so far; they may still change. */
  | { kind: 'hearing'; words: string }
  /** Words that stay as they are. */
  | { kind: 'said'; words: string }
  /** It listens no more; nothing else follows. */
  | { kind: 'ended'; why?: SpeechEnd };

/** A browser's own recognition of speech. */
export type SpeechHearing = {
  /** Spoken words are recognised on this machine; else they go to a service that the browser's maker has chosen. */
  readonly here: boolean;
  /** Listens when it is subscribed to, until that ends or the browser ends it. `stop` lets it finish what was said and then end. */
  readonly listen: (stop: AbortSignal) => Observable<Heard>;
};

/** As much of the Web Speech API as is used here. */
type Results = ArrayLike<ArrayLike<{ readonly transcript: string }> & { readonly isFinal: boolean }>;
type Recogniser = {
  lang: string;
  continuous: boolean;
  interimResults: boolean;
  processLocally?: boolean;
  onresult: ((e: { readonly resultIndex: number; readonly results: Results }) => void) | null;
  onerror: ((e: { readonly error: string }) => void) | null;
  onend: (() => void) | null;
  start: () => void;
  stop: () => void;
  abort: () => void;
};
type Recognition = {
  new (): Recogniser;
  available?: (wanted: { langs: string[]; processLocally: boolean }) => Promise<string>;
};
export type SpeakingBrowser = { SpeechRecognition?: Recognition; webkitSpeechRecognition?: Recognition };

const ENDS: Readonly<Record<string, SpeechEnd>> = {
  'not-allowed': 'refused',
  'service-not-allowed': 'no_service',
  network: 'no_service',
  'audio-capture': 'no_microphone',
  'language-not-supported': 'no_language',
  'no-speech': 'silence',
};

/** What the browser recognises speech with; none where it does not. @param lang tag of the language that is spoken */
export async function speechOf(browser: SpeakingBrowser, lang: string): Promise<SpeechHearing | undefined> {
  const kind = browser.SpeechRecognition ?? browser.webkitSpeechRecognition;
  if (!kind) return undefined;
  const asked = kind.available?.({ langs: [lang], processLocally: true });
  const here = (await asked?.catch(() => undefined)) === 'available';
  return { here, listen: (stop) => listening(kind, { lang, here }, stop) };
}

const listening = (
  kind: Recognition,
  { lang, here }: { lang: string; here: boolean },
  stop: AbortSignal,
): Observable<Heard> =>
  new Observable<Heard>((to) => {
    const ear = new kind();
    Object.assign(ear, { lang, continuous: true, interimResults: true });
    // a browser without this property may not be given it
    if (here) ear.processLocally = true;
    let why: SpeechEnd | undefined;
    ear.onresult = ({ resultIndex, results }) => {
      const now = Array.from(results).slice(resultIndex);
      const words = (final: boolean) =>
        now
          .filter((r) => r.isFinal === final)
          .map((r) => r[0]?.transcript.trim() ?? '')
          .filter((w) => w !== '')
          .join(' ');
      if (words(true) !== '') to.next({ kind: 'said', words: words(true) });
      to.next({ kind: 'hearing', words: words(false) });
    };
    ear.onerror = ({ error }) => {
      if (error !== 'aborted') why = ENDS[error] ?? 'broken';
    };
    ear.onend = () => {
      to.next(why === undefined ? { kind: 'ended' } : { kind: 'ended', why });
      to.complete();
    };
    stop.addEventListener('abort', () => ear.stop());
    ear.start();
    return () => {
      // what it still has to say is for nobody
      ear.onresult = ear.onerror = ear.onend = null;
      ear.abort();
    };
  });

/** Recognition of speech in the language of this browser. */
export const SPEECH = new InjectionToken<Promise<SpeechHearing | undefined>>('speech', {
  providedIn: 'root',
  factory: () => speechOf(globalThis as SpeakingBrowser, navigator.language),
});
