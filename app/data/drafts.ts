import { Injectable } from '@angular/core';

/** Half-typed text, kept at every key so that closing the window loses nothing. Cleared when it becomes a fact. */
@Injectable({ providedIn: 'root' })
export class Drafts {
  read(caseId: string, key: string): string {
    return localStorage.getItem(name(caseId, key)) ?? '';
  }

  keep(caseId: string, key: string, text: string): void {
    if (text === '') localStorage.removeItem(name(caseId, key));
    else localStorage.setItem(name(caseId, key), text);
  }
}

const name = (caseId: string, key: string) => `hs-draft:${caseId}:${key}`;
