import { computed, effect, Injectable, signal } from '@angular/core';

export const themes = ['light', 'dark', 'system'] as const;
export type Theme = (typeof themes)[number];
const key = 'sombra.theme';

/** Paper for the sun, a dark sheet for the evening; kept on this device, since it is the light around it that counts. */
@Injectable({ providedIn: 'root' })
export class ThemeService {
  private readonly wished = signal<Theme>(read());
  private readonly systemDark = signal(matchesDark());
  readonly theme = this.wished.asReadonly();
  readonly dark = computed(() => this.wished() === 'dark' || (this.wished() === 'system' && this.systemDark()));

  constructor() {
    if (typeof matchMedia === 'function') {
      matchMedia('(prefers-color-scheme: dark)').addEventListener('change', ({ matches }) =>
        this.systemDark.set(matches),
      );
    }
    effect(() => {
      document.documentElement.setAttribute('data-bs-theme', this.dark() ? 'dark' : 'light');
    });
  }

  set(theme: Theme): void {
    this.wished.set(theme);
    localStorage.setItem(key, theme);
  }
}

const matchesDark = (): boolean =>
  typeof matchMedia === 'function' && matchMedia('(prefers-color-scheme: dark)').matches;

function read(): Theme {
  const kept = localStorage.getItem(key);
  return themes.find((theme) => theme === kept) ?? 'light';
}
