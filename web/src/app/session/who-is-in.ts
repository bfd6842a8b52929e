import type { User } from '@sombra/contract';
import { defer, startWith, type Observable } from 'rxjs';
import type { SessionService } from './session.service';

/** Who is signed in, at once where somebody is, and each time somebody signs in; where nobody is nothing is read in vain. */
export const whoIsIn = ({ user, signedIn$ }: Pick<SessionService, 'user' | 'signedIn$'>): Observable<User> =>
  defer(() => {
    const now = user();
    return now ? signedIn$.pipe(startWith(now)) : signedIn$;
  });
