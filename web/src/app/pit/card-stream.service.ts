import { inject, Injectable } from '@angular/core';
import { csrfHeader, problemSchema } from '@sombra/contract';
import { Observable } from 'rxjs';
import { sayProblem } from '../ui/problem';
import { SessionService } from '../session/session.service';

export interface CardsAsk {
  readonly spots?: readonly string[];
  readonly day?: string;
  readonly layout: 'a5' | 'four';
}

export type CardsNews =
  | { readonly kind: 'drawing'; readonly done: number; readonly of: number }
  | { readonly kind: 'done'; readonly pdf: Blob };

/** A page that is finished stands in the file as an object of this type. */
const pageMark = '/Type /Page\n';

/**
 * Spot cards as they are drawn: the file is read as it comes, and the pages that are whole in it say how many cards
 * are done. Ending the subscription ends the work on the server too.
 */
@Injectable({ providedIn: 'root' })
export class CardStreamService {
  private readonly session = inject(SessionService);

  cards(ask: CardsAsk): Observable<CardsNews> {
    return new Observable((subscriber) => {
      const stop = new AbortController();
      const told = (news: CardsNews) => subscriber.next(news);
      this.read(ask, stop.signal, told).then(
        () => subscriber.complete(),
        (error: unknown) => !stop.signal.aborted && subscriber.error(error),
      );
      return () => stop.abort();
    });
  }

  private async read(ask: CardsAsk, signal: AbortSignal, tell: (news: CardsNews) => void): Promise<void> {
    const answer = await fetch('/api/cards', {
      method: 'POST',
      signal,
      headers: { 'content-type': 'application/json', [csrfHeader]: this.session.csrfToken() },
      body: JSON.stringify(ask),
    }).catch((error: unknown) => {
      throw signal.aborted ? error : new TypeError('The server cannot be reached.');
    });
    if (!answer.ok || !answer.body) throw new TypeError(await this.faultOf(answer));
    const of = Number(answer.headers.get('x-cards') ?? 0);
    const onSheet = ask.layout === 'four' ? 4 : 1;
    const reader = answer.body.getReader();
    const parts: Uint8Array<ArrayBuffer>[] = [];
    const latin1 = new TextDecoder('latin1');
    let [pages, tail] = [0, ''];
    for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
      parts.push(piece.value);
      const text = tail + latin1.decode(piece.value);
      pages += text.split(pageMark).length - 1;
      // A mark cut in two by the line between pieces is found with the next one, and none is counted twice.
      tail = text.slice(-(pageMark.length - 1));
      tell({ kind: 'drawing', done: Math.min(of, pages * onSheet), of });
    }
    tell({ kind: 'done', pdf: new Blob(parts, { type: 'application/pdf' }) });
  }

  private async faultOf(answer: Response): Promise<string> {
    const parsed = problemSchema.safeParse(await answer.json().catch(() => null));
    return parsed.success ? sayProblem(parsed.data) : `The server answered with an error (${answer.status}).`;
  }
}
