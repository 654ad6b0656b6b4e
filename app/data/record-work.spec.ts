import { RecordWork } from './record-work';

describe('work on the records', () => {
  it('goes on piece by piece: what ends one, or stops it, leaves the others as they are', () => {
    const work = new RecordWork();
    let stopped = '';
    const first = work.start('heads', () => (stopped += 'a'));
    const second = work.start('desk.json', () => (stopped += 'b'));
    const going = () => [...work.going().values()].map(({ what, done, of }) => [what, done, of]);
    second.done(3, 20);
    first.done(7);
    expect(going()).toEqual([
      ['heads', 7, undefined],
      ['desk.json', 3, 20],
    ]);
    [...work.going().values()][1]!.stop();
    expect(stopped).toBe('b');
    first.end();
    first.done(9);
    first.end();
    expect(going()).toEqual([['desk.json', 3, 20]]);
  });
});
