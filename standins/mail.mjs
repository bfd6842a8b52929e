// Simulated mail server: takes what is sent to it over SMTP on loopback and shows it on a page; nothing leaves the machine.
//   SMTP on the port of `smtpUrl`; GET / is the page, GET /messages the same as JSON.
// An address at `bounce.example` is refused for good, one at `busy.example` twice before it is taken.
// Run it alone: node standins/mail.mjs [PORT]
import { createServer } from 'node:http';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';

const escape = (text) => text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]);
const most = 500;

const page = (messages) => `<!doctype html><html lang="en"><meta charset="utf-8"><title>Simulated mail</title>
<style>body{font:16px/1.5 sans-serif;max-width:52rem;margin:2rem auto;padding:0 1rem}article{border-top:1px solid #999;padding:.6rem 0}pre{white-space:pre-wrap;font:inherit}</style>
<h1>Simulated mail: ${messages.length} received</h1>
${messages
  .map(
    ({ to, subject, text, attachments, at }) => `<article><b>${escape(subject)}</b><br>to ${escape(to)}, ${at}
<pre>${escape(text).replace(/https?:\/\/\S+/g, (url) => `<a href="${url}">${url}</a>`)}</pre>${attachments.map((one) => `<i>${escape(one.name)}</i>`).join(', ')}</article>`,
  )
  .join('\n')}`;

export async function startMail(port = 0) {
  const messages = [];
  const busy = new Map();
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    logger: false,
    onRcptTo({ address }, _session, done) {
      if (address.endsWith('@bounce.example'))
        return done(Object.assign(new Error('no such mailbox'), { responseCode: 550 }));
      const tries = (busy.get(address) ?? 0) + 1;
      busy.set(address, tries);
      if (address.endsWith('@busy.example') && tries <= 2) {
        return done(Object.assign(new Error('come again later'), { responseCode: 451 }));
      }
      return done();
    },
    onData(stream, session, done) {
      simpleParser(stream).then(
        (mail) => {
          messages.unshift({
            at: new Date().toISOString(),
            to: session.envelope.rcptTo.map(({ address }) => address).join(', '),
            subject: mail.subject ?? '',
            text: mail.text ?? '',
            attachments: mail.attachments.map((one) => ({
              name: one.filename ?? '',
              content: one.content.toString('utf8'),
            })),
          });
          messages.length = Math.min(messages.length, most);
          done();
        },
        (error) => done(error),
      );
    },
  });
  await new Promise((resolve) => smtp.listen(0, '127.0.0.1', resolve));
  const server = createServer((request, response) => {
    const json = request.url === '/messages';
    response.setHeader('content-type', json ? 'application/json' : 'text/html; charset=utf-8');
    response.end(json ? JSON.stringify(messages) : page(messages));
  });
  await new Promise((resolve) => server.listen(port, '127.0.0.1', resolve));
  return {
    smtpUrl: `smtp://127.0.0.1:${smtp.server.address().port}`,
    pageUrl: `http://127.0.0.1:${server.address().port}`,
    messages,
    stop: () => {
      server.close();
      smtp.close();
    },
  };
}

if (process.argv[1]?.endsWith('mail.mjs')) {
  const { smtpUrl, pageUrl } = await startMail(Number(process.argv[2] ?? 0));
  console.log(`Simulated mail: send to ${smtpUrl}, read at ${pageUrl}`);
}
