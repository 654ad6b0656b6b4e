import { strFromU8, strToU8, zipSync } from 'fflate';
import { unpack } from './unpack';

const limits = {
  fileBytes: 5_000_000,
  entries: 4,
  unpackedBytes: 2_000_000,
  freeBytes: 1_500_000,
  times: 60,
  rowsOfTable: 10,
};
const code = (bytes: Uint8Array, name = 'a.zip') => {
  const r = unpack([{ name, bytes }], limits);
  return r.ok ? 'ok' : r.error.code;
};

describe('files that come in', () => {
  it('are unpacked whole, packed and stored entries alike', () => {
    const texts = { 'dir/kits.csv': 'number\nK1', 'pack.json': '{}' };
    const zip = zipSync(
      { 'dir/kits.csv': strToU8(texts['dir/kits.csv']), 'pack.json': [strToU8('{}'), { level: 0 }] },
      { level: 6 },
    );
    const r = unpack(
      [
        { name: 'a.zip', bytes: zip },
        { name: 'b.csv', bytes: strToU8('x') },
      ],
      limits,
    );
    expect(r.ok && r.value).toEqual([
      { name: 'kits.csv', text: texts['dir/kits.csv'] },
      { name: 'pack.json', text: '{}' },
      { name: 'b.csv', text: 'x' },
    ]);
  });

  it('stop at the limits: size, entries, and what they unpack to, whatever their heads say', () => {
    expect(code(new Uint8Array(5_000_001))).toBe('file_too_large');
    const many = Object.fromEntries(Array.from({ length: 5 }, (_, i) => [`${i}.csv`, strToU8('x')]));
    expect(code(zipSync(many))).toBe('too_many_entries');
    // forty megabytes of nothing, packed a thousand to one; its head is made to say ten bytes
    const bomb = zipSync({ 'kits.csv': new Uint8Array(40_000_000) });
    expect(bomb.length).toBeLessThan(100_000);
    const lying = bomb.slice();
    lying.set([10, 0, 0, 0], 22);
    expect(code(bomb)).toBe('unpacks_too_large');
    expect(code(lying)).toBe('unpacks_too_large');
    // less than the most that may be unpacked, and far more than a table shrinks
    expect(code(zipSync({ 'kits.csv': new Uint8Array(1_800_000) }))).toBe('unpacks_too_large');
    expect(code(zipSync({ 'kits.csv': new Uint8Array(1_400_000) }))).toBe('ok');
    expect(code(bomb.slice(0, 1000))).toBe('broken_zip');
    expect(code(strToU8('no zip at all'))).toBe('broken_zip');
    expect(strFromU8(strToU8('ok'))).toBe('ok');
  });
});
