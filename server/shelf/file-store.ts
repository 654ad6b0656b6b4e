import { createHash } from 'node:crypto';
import { mkdir, readFile, rename, stat, unlink, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

/** Files by the SHA-256 of their content, once each, beside the database. */
export class FileStore {
  private count = 0;

  constructor(private readonly folder: string) {}

  async has(sha256: string): Promise<boolean> {
    return stat(this.path(sha256)).then(
      () => true,
      () => false,
    );
  }

  read(sha256: string): Promise<Buffer | undefined> {
    return readFile(this.path(sha256)).catch(() => undefined);
  }

  /** Keeps a file; false where its content has another hash. It is there whole or not at all. */
  async keep(sha256: string, content: Uint8Array): Promise<boolean> {
    if (createHash('sha256').update(content).digest('hex') !== sha256) return false;
    if (await this.has(sha256)) return true;
    const path = this.path(sha256);
    await mkdir(join(path, '..'), { recursive: true });
    const half = `${path}.${process.pid}-${++this.count}.half`;
    try {
      await writeFile(half, content, { flush: true });
      await rename(half, path);
    } catch (e) {
      await unlink(half).catch(() => undefined);
      throw e;
    }
    return true;
  }

  private path(sha256: string): string {
    return join(this.folder, sha256.slice(0, 2), sha256);
  }
}
