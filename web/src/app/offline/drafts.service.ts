import { inject, Injectable } from '@angular/core';
import { SessionService } from '../session/session.service';

interface Draft {
  readonly savedAt: number;
  readonly value: unknown;
}

/** What was typed and not yet stored, kept on this device through reloads and expired sessions. */
@Injectable({ providedIn: 'root' })
export class DraftsService {
  private readonly session = inject(SessionService);

  keep(name: string, value: unknown): void {
    const draft: Draft = { savedAt: Date.now(), value };
    try {
      localStorage.setItem(this.key(name), JSON.stringify(draft));
    } catch {
      // A full or closed storage costs the draft, not the work at hand.
    }
  }

  read(name: string): Draft | null {
    const text = localStorage.getItem(this.key(name));
    if (text === null) return null;
    try {
      const draft = JSON.parse(text) as Partial<Draft> | null;
      return draft && typeof draft.savedAt === 'number' && 'value' in draft ? (draft as Draft) : null;
    } catch {
      return null;
    }
  }

  drop(name: string): void {
    localStorage.removeItem(this.key(name));
  }

  private key(name: string): string {
    return `sombra.draft.${this.session.user()?.id ?? 'nobody'}.${name}`;
  }
}
