import nodemailer from 'nodemailer';

export interface Letter {
  readonly to: string;
  readonly subject: string;
  readonly body: string;
  /** A calendar file, where there is a date in it. */
  readonly calendar: string | null;
  /** The same letter sent again bears the same id. */
  readonly id: string;
}

/** Why a letter did not leave: `passes` where it is worth another try. */
export class MailFault extends Error {
  constructor(
    message: string,
    readonly passes: boolean,
  ) {
    super(message);
    this.name = 'MailFault';
  }
}

export interface MailService {
  /** @throws MailFault */
  send(letter: Letter): Promise<void>;
  close(): void;
}

/** A mail server, by SMTP. A reply of 5xx is final, anything else passes (RFC 5321, 4.2.1). */
export function smtpMail(url: string, from: string): MailService {
  const transport = nodemailer.createTransport(
    { url, pool: true, maxConnections: 2, disableFileAccess: true, disableUrlAccess: true },
    { from },
  );
  return {
    async send({ to, subject, body, calendar, id }) {
      const icalEvent =
        calendar === null ? {} : { icalEvent: { method: 'PUBLISH', filename: 'planting-day.ics', content: calendar } };
      try {
        await transport.sendMail({ to, subject, text: body, messageId: `<${id}@sombra>`, ...icalEvent });
      } catch (error) {
        const { responseCode } = error as { responseCode?: unknown };
        const final = typeof responseCode === 'number' && responseCode >= 500;
        throw new MailFault(
          final ? `refused by the mail server, ${responseCode}` : 'the mail server was not reached',
          !final,
        );
      }
    },
    close: () => transport.close(),
  };
}
