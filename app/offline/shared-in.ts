/** Where other programs of this machine send what is shared with this one; the manifest names it. */
export const SHARE_PATH = '/shared-in';
const KEPT = 'hs-shared-in';

/** Keeps what was shared until the page asks for it: files, and a text as one. */
export async function keepShared(request: Request): Promise<void> {
  const form = await request.formData();
  const cache = await caches.open(KEPT);
  const text = ['title', 'text', 'url']
    .map((field) => form.get(field))
    .filter((t): t is string => typeof t === 'string' && t.trim() !== '');
  const files = form.getAll('files').filter((f): f is File => f instanceof File);
  if (text.length > 0)
    files.push(new File([[...new Set(text)].join('\n')], 'shared.txt', { type: 'text/plain' }));
  for (const [i, file] of files.entries())
    await cache.put(
      `${SHARE_PATH}/${Date.now()}-${i}`,
      new Response(file, {
        headers: { 'Content-Type': file.type, 'X-Name': encodeURIComponent(file.name) },
      }),
    );
}

/** What was shared and not yet taken; it is kept no longer. */
export async function takeShared(): Promise<File[]> {
  if (typeof caches === 'undefined' || !(await caches.has(KEPT))) return [];
  const cache = await caches.open(KEPT);
  const files: File[] = [];
  for (const key of await cache.keys()) {
    const kept = await cache.match(key);
    if (!kept) continue;
    const [name, type] = [kept.headers.get('X-Name') ?? 'shared', kept.headers.get('Content-Type') ?? ''];
    files.push(new File([await kept.blob()], decodeURIComponent(name), { type }));
    await cache.delete(key);
  }
  return files;
}
