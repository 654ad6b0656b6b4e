import { FolderHouse, GONE_MS } from './folder-house';
import { PlainFolder } from './many-desks.fixture';
import type { HouseOffer } from './protocol';

const sha = (digit: string) => digit.repeat(64);
const offer = (name: string, digit: string, day: number, kind: HouseOffer['kind'] = 'rules'): HouseOffer => ({
  kind,
  name,
  sha256: sha(digit),
  at: `2026-11-${String(day).padStart(2, '0')}T10:00:00.000Z`,
});
const houseIn = (folder: PlainFolder, log: string, name: string) =>
  new FolderHouse(folder, { log, name: () => name });
const valueOf = <T>(r: { ok: true; value: T } | { ok: false }): T => {
  if (!r.ok) throw new Error('refused');
  return r.value;
};
const offersIn = async (house: FolderHouse) =>
  valueOf(await house.offers()).offers.map((o) => `${o.desk}: ${o.kind} ${o.name} ${o.sha256[0]}`);
const othersAt = async (house: FolderHouse, now: number) =>
  valueOf(await house.others(now)).map((h) => `${h.name} in ${h.case}`);

describe('what a folder has beside facts', () => {
  it('of each kind and name the newest stands, whoever put it there, and each desk writes its own file', async () => {
    const folder = new PlainFolder();
    const [front, bench] = [
      houseIn(folder, 'front-log', 'Front desk'),
      houseIn(folder, 'bench-log', 'Bench'),
    ];
    await front.offer(offer('Autumn', '1', 3));
    await bench.offer(offer('Autumn', '2', 4));
    await front.offer(offer('Autumn', '3', 2));
    await front.offer(offer('Autumn', '4', 1, 'catalogue'));
    await front.offer(offer('Winter', '5', 9));
    await front.offer(offer('Winter', '5', 9));
    for (const house of [front, bench])
      expect(await offersIn(house)).toEqual([
        'Front desk: catalogue Autumn 4',
        'Bench: rules Autumn 2',
        'Front desk: rules Winter 5',
      ]);
    expect([...folder.kept.keys()].sort()).toEqual(['offers/bench-log.jsonl', 'offers/front-log.jsonl']);
    expect(folder.kept.get('offers/front-log.jsonl')!.text.trim().split('\n').length).toBe(4);
  });

  it('half an offer is none and hinders no other; a copy of a conflict is read', async () => {
    const folder = new PlainFolder();
    const front = houseIn(folder, 'front-log', 'Front desk');
    await front.offer(offer('Autumn', '1', 3));
    await front.offer(offer('Winter', '2', 4));
    const { text } = folder.kept.get('offers/front-log.jsonl')!;
    folder.put('offers/front-log.jsonl', text.slice(0, -30));
    expect(await offersIn(front)).toEqual(['Front desk: rules Autumn 1']);
    folder.put('offers/front-log (copy of the bench).jsonl', text);
    expect(await offersIn(front)).toEqual(['Front desk: rules Autumn 1', 'Front desk: rules Winter 2']);
    // what cannot be read is not carried on
    await front.offer(offer('Spring', '3', 5));
    expect((await offersIn(front)).length).toBe(3);
    for (const line of folder.kept.get('offers/front-log.jsonl')!.text.trim().split('\n'))
      expect(() => JSON.parse(line) as unknown).not.toThrow();
  });

  it('a desk is in a case while it stirs, by the clock of whoever looks', async () => {
    const folder = new PlainFolder();
    const [front, bench] = [
      houseIn(folder, 'front-log', 'Front desk'),
      houseIn(folder, 'bench-log', 'Bench'),
    ];
    await bench.isIn('2041', 'a');
    // it may have lain there for a week
    expect(await othersAt(front, 0)).toEqual([]);
    await bench.isIn('2041', 'b');
    expect(await othersAt(front, 5000)).toEqual(['Bench in 2041']);
    expect(await othersAt(bench, 5000)).toEqual([]);
    expect(await othersAt(front, 5000 + GONE_MS - 1)).toEqual(['Bench in 2041']);
    expect(await othersAt(front, 5000 + GONE_MS)).toEqual([]);
    await bench.isIn('2042', 'c');
    expect(await othersAt(front, 200_000)).toEqual(['Bench in 2042']);
    await bench.isIn(null, 'd');
    expect(await othersAt(front, 200_001)).toEqual([]);
  });

  it('what is half-written changes nothing until it is whole, and a copy of a conflict is no desk', async () => {
    const folder = new PlainFolder();
    const [front, bench] = [
      houseIn(folder, 'front-log', 'Front desk'),
      houseIn(folder, 'bench-log', 'Bench'),
    ];
    await bench.isIn('2041', 'a');
    await othersAt(front, 0);
    await bench.isIn('2041', 'b');
    const { text } = folder.kept.get('here/bench-log.json')!;
    expect(await othersAt(front, 10)).toEqual(['Bench in 2041']);
    folder.put('here/bench-log.json', text.slice(0, -5));
    folder.put('here/bench-log (copy).json', text);
    expect(await othersAt(front, 20)).toEqual(['Bench in 2041']);
    folder.put('here/bench-log (copy).json', text.replace('"b"', '"e"'));
    expect(await othersAt(front, 30)).toEqual(['Bench in 2041']);
  });

  it('a folder that cannot be read or written says so', async () => {
    const folder = new PlainFolder();
    const house = houseIn(folder, 'front-log', 'Front desk');
    const broken = () => Promise.reject(new Error('the stick is gone'));
    Object.assign(folder, { files: broken, read: broken, write: broken });
    for (const done of [
      await house.offers(),
      await house.offer(offer('Autumn', '1', 3)),
      await house.isIn('2041', 'a'),
      await house.others(0),
    ])
      expect(done).toEqual({ ok: false, error: { code: 'away', detail: 'the stick is gone' } });
  });
});
