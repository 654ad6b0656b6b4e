import { factsOf } from '@core/facts/read';
import type { CaseDesk } from '../data/case-desk';
import { closeDesk, openDesk, paint, until } from '../testing/demo-desk';
import { Disagree } from './disagree';

describe('what does not agree', () => {
  let desk: CaseDesk;
  beforeEach(async () => {
    desk = await openDesk();
  });
  afterEach(closeDesk);

  it('is settled by keeping one of several values, as it was known, and the others stay filed', async () => {
    await desk.newCase([
      { key: 'kit.fitted', value: '2025-03-14', how: 'document', note: 'invoice' },
      { key: 'complaint', value: 'rattles', how: 'reported' },
    ]);
    const rival = (value: string) => ({ key: 'kit.fitted', value, how: 'reported' as const, rival: true });
    await desk.file(rival('2025-04-01'));
    await desk.file(rival('2025-04-01'));
    const page = await paint(Disagree);
    const keeps = () => page.all('button').filter((b) => b.textContent.includes('Keep'));
    // the same value filed twice is one choice
    expect(keeps().length).toBe(2);
    const filed = desk.current()?.state.log.length ?? 0;
    keeps()
      .find((b) => /14|03/.test(b.textContent))
      ?.click();
    await until(() => keeps().length === 0);
    const [now, ...more] = factsOf(desk.current()!.state, 'kit.fitted');
    expect([now?.value, now?.how, now?.note, more.length]).toEqual(['2025-03-14', 'document', 'invoice', 0]);
    expect(desk.current()?.state.log.length).toBe(filed + 1);
    await desk.undo();
    await until(() => keeps().length === 2);
  });
});
