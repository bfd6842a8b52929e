import { CentreFault, type CentreReply, type CentreTicket, type LocateCentre } from '../src/adapters/locate-centre';

/** A locate centre in the test's own hands: what it answers is set by the test. */
export class TestCentre implements LocateCentre {
  away = false;
  refuses: string | null = null;
  replies: CentreReply[] = [];
  readonly raised: Parameters<LocateCentre['raise']>[0][] = [];
  readonly reminded: string[] = [];
  readonly withdrawn: string[] = [];
  /** What the centre takes its time for, where a test asks it to. */
  beforeAnswer: () => Promise<unknown> = () => Promise.resolve();
  private dates = { validFrom: '', validUntil: '' };

  reply(utility: string, state: CentreReply['state'], more: Partial<CentreReply> = {}): void {
    const repliedOn = state === 'waiting' ? null : '2026-11-20';
    const known = this.replies.filter((one) => one.utility !== utility);
    this.replies = [...known, { utility, state, repliedOn, toleranceMm: null, note: '', marks: null, ...more }];
  }

  private answer(number: string): CentreTicket {
    if (this.away) throw new CentreFault('The locate centre cannot be reached', true);
    if (this.refuses) throw new CentreFault(`The locate centre refuses: ${this.refuses}`, false);
    return { number, ...this.dates, replies: this.replies };
  }

  async raise(request: Parameters<LocateCentre['raise']>[0]): Promise<CentreTicket> {
    this.dates = { validFrom: request.workFrom, validUntil: request.workUntil };
    await this.beforeAnswer();
    const answer = this.answer(`T-${request.requestId.slice(-6)}`);
    this.raised.push(request);
    return answer;
  }
  status(number: string): Promise<CentreTicket> {
    return Promise.resolve().then(() => this.answer(number));
  }
  remind(_number: string, utility: string): Promise<void> {
    this.reminded.push(utility);
    return Promise.resolve();
  }
  withdraw(number: string): Promise<void> {
    this.withdrawn.push(number);
    return Promise.resolve();
  }
}
