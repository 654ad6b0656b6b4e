import { computed, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import * as z from 'zod';
import '@core/quantity/plain-schemas';
import type { Fact } from '@core/facts/fact';
import type { NewFact } from '@core/facts/change';
import {
  keyBackup,
  type KeyBackup,
  keyFile,
  type KeyFile,
  readKeyBackup,
  readKeyFile,
  saysKeyBackup,
} from '@core/claim/key-file';
import type { ShapeError } from '@core/claim/read-shape';
import { keyCode, SIGNED, signedText, type Signer } from '@core/claim/signature';
import { err, ok, type Result } from '@core/quantity/result';
import { SETTING } from '../records/records';
import { Clock } from './clock';
import { DeskSettingsStore } from './desk-settings';
import { FactRepository } from './fact-repository';

const OwnSchema = z.strictObject({
  key: z.string(),
  since: z.string(),
  kept: z.boolean(),
  // browsers know no keys on pages that came by an unsafe way
  secret: z.custom<CryptoKey>((k) => typeof CryptoKey !== 'undefined' && k instanceof CryptoKey),
});
/** The key pair of this desk; `kept`: a backup was saved. The secret never leaves the browser's own keeping. */
export type OwnKey = Readonly<z.infer<typeof OwnSchema>>;
const KnownSchema = z.array(
  z.strictObject({ key: z.string(), name: z.string(), since: z.string(), own: z.boolean() }),
);
/** A key by which issues are known: of another desk, or an earlier one of this. */
export type KnownKey = Readonly<z.infer<typeof KnownSchema>>[number];

export type KeyFileError =
  | ShapeError
  | { code: 'no_crypto' }
  | { code: 'passphrase_wanted' }
  | { code: 'wrong_passphrase' };

const OWN = 'deskKey';
const KNOWN = SETTING.knownKeys;
const CURVE = { name: 'ECDSA', namedCurve: 'P-256' } as const;
const ITERATIONS = 600_000;

/** The key pair that this desk signs its issues with, and the public keys of others. */
@Injectable({ providedIn: 'root' })
export class DeskKeys {
  private readonly repository = inject(FactRepository);
  private readonly settings = inject(DeskSettingsStore);
  private readonly clock = inject(Clock);
  readonly own = signal<OwnKey | undefined>(undefined);
  readonly known = signal<readonly KnownKey[]>([]);
  /** Browsers keep keys for pages that came by a safe way only. */
  readonly possible = typeof crypto !== 'undefined' && 'subtle' in crypto;
  readonly code = computed(() => {
    const own = this.own();
    return own && keyCode(own.key);
  });
  private loading: Promise<void> | undefined;

  constructor() {
    // another window, or a backup that was taken in
    this.repository.news$.pipe(takeUntilDestroyed()).subscribe((news) => {
      if (news.setting === KNOWN) void this.read();
    });
  }

  load(): Promise<void> {
    return (this.loading ??= this.read());
  }

  private async read(): Promise<void> {
    this.own.set(OwnSchema.safeParse(await this.repository.setting(OWN)).data);
    this.known.set(KnownSchema.safeParse(await this.repository.setting(KNOWN)).data ?? []);
  }

  /** Whose key it is. */
  who(key: string): Signer {
    if (this.own()?.key === key) return { is: 'this_desk' };
    const known = this.known().find((k) => k.key === key);
    return known ? (known.own ? { is: 'this_desk' } : { is: 'known', name: known.name }) : { is: 'unknown' };
  }

  /**
   * Makes a key pair and signs with it from now on; an earlier one stays known as this desk's. From then on the secret cannot
   * be taken out of the browser: its backup is made now, under the passphrase, or never.
   */
  async make(passphrase: string | undefined): Promise<Result<KeyBackup | undefined, KeyFileError>> {
    if (!this.possible) return err({ code: 'no_crypto' });
    const pair = await crypto.subtle.generateKey(CURVE, true, ['sign', 'verify']);
    const key = hex(await crypto.subtle.exportKey('raw', pair.publicKey));
    const secret = await crypto.subtle.exportKey('pkcs8', pair.privateKey);
    const backup = passphrase ? await this.hide(key, secret, passphrase) : undefined;
    await this.keep(key, secret, backup !== undefined);
    return ok(backup);
  }

  /** Takes in the public key of another desk, or this desk's own pair from its backup. */
  async take(text: string, passphrase?: string): Promise<Result<KeyFile | KeyBackup, KeyFileError>> {
    if (!saysKeyBackup(text)) {
      const read = readKeyFile(text);
      if (read.ok) await this.learn({ key: read.value.key, name: read.value.house, own: false });
      return read;
    }
    const read = readKeyBackup(text);
    if (!read.ok) return read;
    if (!this.possible) return err({ code: 'no_crypto' });
    if (!passphrase) return err({ code: 'passphrase_wanted' });
    try {
      const b = read.value;
      const lock = await lockOf(passphrase, bytes(b.salt), b.iterations);
      const how = { name: 'AES-GCM', iv: bytes(b.iv), additionalData: bytes(b.key) };
      const secret = await crypto.subtle.decrypt(how, lock, bytes(b.hidden));
      await this.keep(b.key, secret, true);
      return ok(b);
    } catch {
      return err({ code: 'wrong_passphrase' });
    }
  }

  async forget(key: string): Promise<void> {
    await this.keepKnown(this.known().filter((k) => k.key !== key));
  }

  /** The public key as it is given to others. */
  publicFile(): KeyFile | undefined {
    const own = this.own();
    return own && keyFile(this.name(), own.key);
  }

  /** The fact that signs an issue; none where this desk has no key. */
  async sign(seal: Fact): Promise<NewFact | undefined> {
    await this.load();
    const own = this.own();
    if (!own || !this.possible) return undefined;
    const signature = await this.signText(signedText(seal));
    if (signature === undefined) return undefined;
    return {
      key: SIGNED,
      value: { is: 'signature', seal: seal.id, key: own.key, signature },
      how: 'decided',
      basis: [seal.id],
    };
  }

  /** Signs a text with the key of this desk (ECDSA, P-256, SHA-256), hex; none where it has no key. */
  async signText(text: string): Promise<string | undefined> {
    const own = this.own();
    if (!own || !this.possible) return undefined;
    const how = { name: 'ECDSA', hash: 'SHA-256' };
    return hex(await crypto.subtle.sign(how, own.secret, new TextEncoder().encode(text)));
  }

  private async hide(key: string, secret: ArrayBuffer, passphrase: string): Promise<KeyBackup> {
    const [salt, iv] = [
      crypto.getRandomValues(new Uint8Array(16)),
      crypto.getRandomValues(new Uint8Array(12)),
    ];
    const lock = await lockOf(passphrase, salt, ITERATIONS);
    // the public key is bound to what is hidden: a backup in which it was changed does not open
    const how = { name: 'AES-GCM', iv, additionalData: bytes(key) };
    const hidden = await crypto.subtle.encrypt(how, lock, secret);
    return keyBackup(this.name(), key, {
      iterations: ITERATIONS,
      salt: hex(salt.buffer),
      iv: hex(iv.buffer),
      hidden: hex(hidden),
    });
  }

  /** Under which name others know this desk: the house, else who works at it. */
  private name(): string {
    const { house, by } = this.settings.settings();
    return house.split('\n').find(Boolean) ?? by;
  }

  private async keep(key: string, secret: ArrayBuffer, kept: boolean): Promise<void> {
    const before = this.own();
    if (before && before.key !== key) await this.learn({ key: before.key, name: '', own: true });
    const locked = await crypto.subtle.importKey('pkcs8', secret, CURVE, false, ['sign']);
    const own: OwnKey = { key, since: this.clock.now(), kept, secret: locked };
    await this.repository.keepSetting(OWN, own);
    this.own.set(own);
  }

  private learn(k: Omit<KnownKey, 'since'>): Promise<void> {
    const rest = this.known().filter((x) => x.key !== k.key);
    return this.keepKnown([...rest, { ...k, since: this.clock.now() }]);
  }

  private async keepKnown(known: readonly KnownKey[]): Promise<void> {
    await this.repository.keepSetting(KNOWN, [...known]);
    this.known.set(known);
  }
}

async function lockOf(
  passphrase: string,
  salt: Uint8Array<ArrayBuffer>,
  iterations: number,
): Promise<CryptoKey> {
  const words = await crypto.subtle.importKey('raw', new TextEncoder().encode(passphrase), 'PBKDF2', false, [
    'deriveKey',
  ]);
  return crypto.subtle.deriveKey(
    { name: 'PBKDF2', hash: 'SHA-256', salt, iterations },
    words,
    { name: 'AES-GCM', length: 256 },
    false,
    ['encrypt', 'decrypt'],
  );
}

const hex = (b: ArrayBuffer): string =>
  Array.from(new Uint8Array(b), (x) => x.toString(16).padStart(2, '0')).join('');
const bytes = (h: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(h.match(/../g) ?? [], (x) => Number.parseInt(x, 16));
