import { inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';

/** A part of the program that could not be fetched, because the server is gone or the network is. */
@Injectable({ providedIn: 'root' })
export class Fetching {
  private readonly router = inject(Router);
  /** Where the user wanted to go. */
  readonly missing = signal<string | undefined>(undefined);

  failed(url: string, error: unknown): void {
    // Anything else than a part that did not come is a fault of the program and must be seen as such.
    if (!isFetchError(error)) throw error;
    this.missing.set(url);
  }

  /** Fetches it again. A browser may remember that a part did not come; then the page is loaded afresh, at that place. */
  async again(): Promise<void> {
    const url = this.missing();
    if (url === undefined) return;
    this.missing.set(undefined);
    await this.router.navigateByUrl(url);
    if (this.missing() !== undefined && (await reachable())) location.assign(url);
  }
}

const isFetchError = (e: unknown): boolean =>
  e instanceof TypeError && /import|module|fetch/i.test(e.message);

async function reachable(): Promise<boolean> {
  try {
    return (await fetch('setup.json')).ok;
  } catch {
    return false;
  }
}
