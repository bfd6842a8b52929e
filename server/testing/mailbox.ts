import type { ReceivedMail } from '../../standins/mail.mjs';
import { openStandin } from './standin';

/** The simulated mail server, in a process of its own as it ships. */
export interface Mailbox {
  readonly smtpUrl: string;
  messages(): Promise<readonly ReceivedMail[]>;
  stop(): void;
}

export async function openMailbox(): Promise<Mailbox> {
  const { said, stop } = await openStandin('mail.mjs');
  const [, smtpUrl = '', pageUrl = ''] = /send to (\S+), read at (\S+)/.exec(said) ?? [];
  return {
    smtpUrl,
    messages: async () => (await fetch(`${pageUrl}/messages`)).json() as Promise<readonly ReceivedMail[]>,
    stop,
  };
}
