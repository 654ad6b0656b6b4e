import type { FolderFiles } from '@core/shelf/folder-shelf';
import { hashOf } from './hash';

/** A folder of this machine that somebody carries to the others, as the browser lets it be used. */
export class ChosenFolder implements FolderFiles {
  constructor(private readonly root: FileSystemDirectoryHandle) {}

  async folders(path: string): Promise<readonly string[]> {
    return (await this.entries(path)).flatMap((e) => (e.kind === 'directory' ? [e.name] : []));
  }

  async files(path: string): Promise<readonly { name: string; stamp: string }[]> {
    const found: { name: string; stamp: string }[] = [];
    for (const e of await this.entries(path)) {
      if (e.kind !== 'file') continue;
      const file = await (e as FileSystemFileHandle).getFile();
      found.push({ name: e.name, stamp: `${file.size} ${file.lastModified}` });
    }
    return found;
  }

  async read(path: string): Promise<string | undefined> {
    return (await this.file(path))?.text();
  }

  async file(path: string): Promise<File | undefined> {
    try {
      const { dir, name } = await this.place(path, false);
      return await (await dir.getFileHandle(name)).getFile();
    } catch (e) {
      if (isMissing(e)) return undefined;
      throw e;
    }
  }

  /** The browser writes beside it and puts it in place when it is whole. */
  async write(path: string, content: string | Blob): Promise<void> {
    const { dir, name } = await this.place(path, true);
    const stream = await (await dir.getFileHandle(name, { create: true })).createWritable();
    try {
      await stream.write(content);
      await stream.close();
    } catch (e) {
      await stream.abort().catch(() => undefined);
      throw e;
    }
  }

  /** A file by its hash; one whose content is another is none. */
  async byHash(sha256: string): Promise<Blob | undefined> {
    const file = await this.file(pathOf(sha256));
    if (!file) return undefined;
    return (await hashOf(new Uint8Array(await file.arrayBuffer()))) === sha256 ? file : undefined;
  }

  keepByHash(sha256: string, blob: Blob): Promise<void> {
    return this.write(pathOf(sha256), blob);
  }

  private async entries(path: string): Promise<FileSystemHandle[]> {
    let dir = this.root;
    try {
      for (const part of path.split('/')) dir = await dir.getDirectoryHandle(part);
    } catch (e) {
      if (isMissing(e)) return [];
      throw e;
    }
    const found: FileSystemHandle[] = [];
    for await (const e of (dir as unknown as { values(): AsyncIterable<FileSystemHandle> }).values())
      found.push(e);
    return found;
  }

  private async place(
    path: string,
    create: boolean,
  ): Promise<{ dir: FileSystemDirectoryHandle; name: string }> {
    const parts = path.split('/');
    const name = parts.pop() ?? '';
    let dir = this.root;
    for (const part of parts) dir = await dir.getDirectoryHandle(part, { create });
    return { dir, name };
  }
}

const pathOf = (sha256: string): string => `files/${sha256.slice(0, 2)}/${sha256}`;
const isMissing = (e: unknown): boolean => e instanceof DOMException && e.name === 'NotFoundError';

type Permitted = {
  queryPermission(how: { mode: 'readwrite' }): Promise<PermissionState>;
  requestPermission(how: { mode: 'readwrite' }): Promise<PermissionState>;
};
/** What the browser lets this page do with a folder; folders of the page's own need no permission. */
export async function permission(
  folder: FileSystemDirectoryHandle,
  how: 'queryPermission' | 'requestPermission',
): Promise<PermissionState> {
  const asks = folder as unknown as Partial<Permitted>;
  return (await asks[how]?.({ mode: 'readwrite' })) ?? 'granted';
}
