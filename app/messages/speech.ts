import type { SpeechEnd } from '../instruments/speech';

const ENDS: Readonly<Record<SpeechEnd, string>> = {
  refused: 'The browser may not use the microphone. Allow it for this page, or type.',
  no_microphone: 'No microphone was found. Plug one in, or type.',
  no_service: 'The service that this browser hears with does not answer. Type instead; nothing is lost.',
  no_language: 'This browser does not understand its own language when it is spoken. Type instead.',
  silence: 'Nothing was heard.',
  broken: 'The browser stopped listening. Begin again, or type.',
};
/** Why listening ended, and what to do. */
export const speechEndSentence = (why: SpeechEnd): string => ENDS[why];

/** What is asked before spoken words leave this machine. */
export const SPEECH_LEAVES =
  'This browser does not understand speech by itself: what you say goes to a service of its maker. Say nothing that must stay in the house. Dictate?';
