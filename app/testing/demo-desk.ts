import { must } from '@core/quantity/must';
import { type Provider, provideZonelessChangeDetection, type Type } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { deleteDB } from 'idb';
import { provideNzIconsTesting } from 'ng-zorro-antd/icon/testing';
import { demoScenario } from '../../demo/scenario';
import { shipped } from '../../demo/shipped';
import { CaseDesk } from '../data/case-desk';
import { Cases } from '../data/cases';
import { Database } from '../data/database';
import { addDemo } from '../data/demo-data';
import { FactRepository } from '../data/fact-repository';
import { Packs } from '../data/packs';
import { DATABASE } from '../records/records';

/** An instant at which the demo's days are as they were written. */
const AS_WRITTEN = Date.parse('2026-11-24T12:00:00Z');

/** A desk on an empty record store of its own; `demo` fills it with the scenario. Close it with {@link closeDesk}. */
export async function openDesk(demo = true, more: Provider[] = []): Promise<CaseDesk> {
  localStorage.clear();
  await deleteDB(DATABASE);
  TestBed.configureTestingModule({
    providers: [
      provideZonelessChangeDetection(),
      provideRouter([{ path: '**', children: [] }]),
      provideNzIconsTesting(),
      ...more,
    ],
  });
  if (demo) {
    const files = shipped({ demo: demoScenario() });
    await addDemo(TestBed.inject(FactRepository), files.demo, files.judged, AS_WRITTEN);
  }
  return wake();
}

/** Opens what the records hold, as the page does when it starts. */
export async function wake(): Promise<CaseDesk> {
  await TestBed.inject(Cases).load();
  const packs = TestBed.inject(Packs);
  await packs.load();
  const newest = packs.newestId();
  if (newest !== undefined) await packs.read(newest);
  return TestBed.inject(CaseDesk);
}

/** Lets every write to the record store fail with this error, until the function returned is called. */
export function failWrites(name: string): () => void {
  const store = IDBObjectStore.prototype;
  const kept = ['put', 'add'].map((k) => [k, must(Object.getOwnPropertyDescriptor(store, k))] as const);
  const refuse = () => {
    throw new DOMException('made to fail', name);
  };
  for (const [k, d] of kept) Object.defineProperty(store, k, { ...d, value: refuse });
  return () => {
    for (const [k, d] of kept) Object.defineProperty(store, k, d);
  };
}

export async function closeDesk(): Promise<void> {
  await TestBed.inject(FactRepository).written();
  const db = await TestBed.inject(Database).open();
  db.close();
  TestBed.resetTestingModule();
}

/** A part of the screen, painted, with the words on it. */
export async function paint<T>(part: Type<T>, inputs: Record<string, unknown> = {}): Promise<Painted<T>> {
  const fixture = TestBed.createComponent(part);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  return new Painted(fixture);
}

export class Painted<T> {
  constructor(readonly fixture: ComponentFixture<T>) {}

  get element(): HTMLElement {
    return this.fixture.nativeElement as HTMLElement;
  }

  get words(): string {
    return this.element.textContent.replace(/\s+/g, ' ').trim();
  }

  one<E extends HTMLElement>(selector: string): E {
    const found = this.element.querySelector<E>(selector);
    if (!found) throw new Error(`no ${selector} in: ${this.words}`);
    return found;
  }

  all(selector: string): HTMLElement[] {
    return [...this.element.querySelectorAll<HTMLElement>(selector)];
  }

  /** Presses the button that says so. */
  async press(words: string): Promise<void> {
    const button = this.all('button').find((b) => b.textContent.trim().startsWith(words));
    if (!button) throw new Error(`no button “${words}” in: ${this.words}`);
    button.click();
    await this.fixture.whenStable();
  }

  /** Picks from the list with this label; what it offers lies over the page. */
  async pick(label: string, wording: string): Promise<void> {
    const named = this.all('label[for]').find((l) => l.textContent.trim() === label);
    const select = this.element
      .querySelector(`#${named?.getAttribute('for') ?? 'none'}`)
      ?.closest('nz-select');
    if (!(select instanceof HTMLElement)) throw new Error(`no list “${label}” in: ${this.words}`);
    select.click();
    await this.fixture.whenStable();
    const offered = [...document.querySelectorAll<HTMLElement>('.ant-select-item-option')];
    const found = offered.find((o) => o.textContent.trim() === wording);
    if (!found)
      throw new Error(`no “${wording}” among: ${offered.map((o) => o.textContent.trim()).join(', ')}`);
    found.click();
    await this.fixture.whenStable();
  }

  /** Types into the field with this label and leaves it. */
  async type(label: string, text: string): Promise<void> {
    const id = this.all('label[for]')
      .find((l) => l.textContent.trim().startsWith(label))
      ?.getAttribute('for');
    const box =
      id === null || id === undefined ? undefined : this.element.querySelector<HTMLInputElement>(`#${id}`);
    if (!box) throw new Error(`no field “${label}” in: ${this.words}`);
    box.value = text;
    box.dispatchEvent(new Event('input'));
    box.dispatchEvent(new Event('change'));
    box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await this.fixture.whenStable();
  }
}

/** Waits until what is asked holds; for work that is done in turns. */
export async function until(holds: () => boolean): Promise<void> {
  for (let k = 0; k < 2000; k++) {
    if (holds()) return;
    await new Promise((rest) => setTimeout(rest));
  }
  throw new Error('it never came to hold');
}
