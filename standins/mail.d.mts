export interface ReceivedMail {
  readonly at: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly attachments: readonly { readonly name: string; readonly content: string }[];
}
export function startMail(port?: number): Promise<{
  readonly smtpUrl: string;
  readonly pageUrl: string;
  readonly messages: readonly ReceivedMail[];
  stop(): void;
}>;
