import { spawn } from 'node:child_process';
import path from 'node:path';
import type { ReceivedMail } from '../../standins/mail.mjs';

/** The simulated mail server, in a process of its own as it ships. */
export interface Mailbox {
  readonly smtpUrl: string;
  messages(): Promise<readonly ReceivedMail[]>;
  stop(): void;
}

export async function openMailbox(): Promise<Mailbox> {
  const script = path.join(__dirname, '../../standins/mail.mjs');
  const child = spawn(process.execPath, [script], { stdio: ['ignore', 'pipe', 'inherit'] });
  const said = await new Promise<string>((resolve, reject) => {
    child.stdout.once('data', (chunk: Buffer) => resolve(chunk.toString()));
    child.once('exit', (code) => reject(new Error(`the stand-in ended with ${code}`)));
  });
  const [, smtpUrl = '', pageUrl = ''] = /send to (\S+), read at (\S+)/.exec(said) ?? [];
  return {
    smtpUrl,
    messages: async () => (await fetch(`${pageUrl}/messages`)).json() as Promise<readonly ReceivedMail[]>,
    stop: () => child.kill(),
  };
}
