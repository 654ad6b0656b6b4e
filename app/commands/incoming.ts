import { inject, Injectable, Injector } from '@angular/core';
import { Router } from '@angular/router';
import { type IncomingKind, recognise } from '@core/intake/recognise';
import { looksLikeCode } from '@core/fitting/looks-like-code';
import { headingAt, namesClaims } from '@core/intake/claims-form';
import { mailsIn } from '@core/intake/mailbox';
import { LONGEST_TEXT } from '@core/facts/fact';
import { tableOf } from '@core/intake/table';
import { registryFor, worldOf } from '@core/answer/world';
import { PackImports } from '../data/pack-imports';
import { Packs } from '../data/packs';
import { MOST_MAILBOX_BYTES } from '../workers/read-mailbox.protocol';
import { Cases } from '../data/cases';
import { Attachments } from './attachments';
import { BoxCodes } from './box-codes';
import { Commands } from './commands';
import { Notices } from './notices';
import type { SheetReturns } from './sheet-returns';

/** Pictures that are looked at for a label: the page waits for each. */
const MOST_LOOKED_AT = 3;
/** Columns from which on a text can be a table of claims. */
const LEAST_COLUMNS = 3;
/** Signs of a file that are looked at to recognise it. */
const LOOKED_AT = 4000;

/** The one door for whatever came in: it is recognised, and goes where it belongs. */
@Injectable({ providedIn: 'root' })
export class Incoming {
  private readonly commands = inject(Commands);
  private readonly codes = inject(BoxCodes);
  private readonly cases = inject(Cases);
  private readonly attachments = inject(Attachments);
  private readonly imports = inject(PackImports);
  private readonly packs = inject(Packs);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  private readonly injector = inject(Injector);

  /** A message becomes a new case that shows it, read; many are looked through first. False when it was refused: then nothing was done and the text stays. */
  async text(typed: string): Promise<boolean> {
    const said = typed.trim();
    if (this.codes.take(said)) return true;
    if (looksLikeCode(said)) return this.sheet((returns) => returns.text(said));
    const catalogue = this.packs.newest();
    const registry = catalogue ? registryFor(worldOf(catalogue)) : undefined;
    // What is longer than a message can be is taken apart in the thread, not here.
    if (said.length > LONGEST_TEXT || (registry && mailsIn(said, registry).length > 1))
      return this.mailbox('What was pasted', [new Blob([said])]);
    const table = registry ? tableOf(said, registry) : { kind: 'none' as const };
    const message = table.kind === 'row' ? table.text : said;
    await this.commands.newCase([
      { key: 'call.message', value: message, how: 'reported', series: 'messages' },
    ]);
    return true;
  }

  /** A table with claim numbers is read in a thread, and shown row by row. */
  private async claims(file: File): Promise<void> {
    const { ClaimsTables } = await import('../data/claims-tables');
    void this.injector.get(ClaimsTables).read(file.name, file);
    await this.router.navigate(['/claims']);
  }

  /** Whether a text begins as a table whose heading names claims, with more than one row below it; a title may stand above. */
  private async tellsOfClaims(begins: string): Promise<boolean> {
    const newest = this.packs.newestId();
    const catalogue = newest === undefined ? undefined : await this.packs.read(newest);
    if (!catalogue) return false;
    const registry = registryFor(worldOf(catalogue));
    const rows = begins.split(/\r?\n/).map((l) => l.split(/[;,\t|]/));
    const at = headingAt(rows, registry);
    const head = rows[at] ?? [];
    const below = rows.slice(at + 1).filter((r) => r.length > 1);
    return head.length >= LEAST_COLUMNS && below.length > 1 && namesClaims(head, registry);
  }

  /** Messages that came together are read in a thread, and shown line by line. */
  async mailbox(name: string, blobs: readonly Blob[]): Promise<boolean> {
    const box = this.injector.get((await import('../data/mailbox')).Mailbox);
    if (!box.read(name, blobs)) {
      this.notices.refuse(
        `${name} is larger than the ${MOST_MAILBOX_BYTES / 1024 / 1024} MB that are read at once. Save a part of it as a file of its own.`,
      );
      return false;
    }
    await this.router.navigate(['/mail']);
    return true;
  }

  /** Files of any kind; those that belong to a case go to the one in hand, else to a new one. */
  async files(files: readonly File[], inHand = false): Promise<void> {
    const belong: File[] = [];
    const tables: File[] = [];
    const mails: File[] = [];
    for (const file of files) {
      const begins = await file.slice(0, LOOKED_AT).text();
      const came = recognise({ name: file.name, type: file.type, begins });
      if (came === 'catalogue') tables.push(file);
      else if (came === 'mail') mails.push(file);
      else if (came === 'workbook' || (came === 'text' && (await this.tellsOfClaims(begins)))) {
        // Beside a case it is a paper of it.
        if (inHand && came === 'workbook') belong.push(file);
        else await this.claims(file);
      } else if (BELONGS.has(came)) belong.push(file);
      else await this.one(came, file);
    }
    if (tables.length > 0) {
      await this.router.navigate(['/catalogue']);
      this.imports.read(tables);
    }
    const [mail] = mails;
    if (mail) await this.mailbox(mails.length === 1 ? mail.name : `${mails.length} files`, mails);
    if (belong.length === 0) return;
    const home = await this.labelled(belong);
    if (!inHand) await (home ? this.openAt(home.id) : this.commands.newCase());
    await this.attachments.attach(belong);
    // In hand stays in hand; that a label says otherwise is told, since a picture in the wrong case is evidence of nothing.
    if (inHand && home && home.id !== this.cases.currentId())
      await this.notices.say(
        'warning',
        `The label on the picture is of case ${home.tag}; it was attached to the case in hand. Ctrl+Z takes it back.`,
        12000,
      );
  }

  /** The case whose label is on the first picture that shows one. */
  private async labelled(files: readonly File[]): Promise<{ id: string; tag: string } | undefined> {
    for (const file of files.filter((f) => f.type.startsWith('image/')).slice(0, MOST_LOOKED_AT)) {
      const home = await this.codes.onPicture(file);
      if (home) return home;
    }
    return undefined;
  }

  private async openAt(id: string): Promise<void> {
    await this.router.navigate(['/case', id, 'examine']);
    const { CaseDesk } = await import('../data/case-desk');
    await this.injector.get(CaseDesk).open(id);
  }

  /** A filled fitting sheet goes to its case; what reads it is fetched then. */
  private async sheet(take: (r: SheetReturns) => Promise<string | undefined>): Promise<boolean> {
    const { SheetReturns } = await import('./sheet-returns');
    const refused = await take(this.injector.get(SheetReturns));
    if (refused !== undefined) this.notices.refuse(refused);
    return refused === undefined;
  }

  private async one(came: IncomingKind, file: File): Promise<void> {
    switch (came) {
      case 'case':
      case 'desk':
      case 'zip':
        return this.commands.openFile(file);
      case 'sheet':
        await this.sheet((returns) => returns.file(file));
        return;
      case 'text':
        if (file.size > LONGEST_TEXT) await this.mailbox(file.name, [file]);
        else await this.text(await file.text());
        return;
      default:
        this.notices.refuse(
          `${file.name} is of no kind that is read here. Messages, tables, case files, bundles, catalogues, pictures, captures and papers are; save it as one of these, or attach it to a case from its tape.`,
        );
    }
  }
}

const BELONGS: ReadonlySet<IncomingKind> = new Set(['picture', 'capture', 'paper']);
