import { computed, Injectable, signal } from '@angular/core';

const name = 'sombra-dial-up';

/** What is up on a dial: north, or the path one stands on. Kept on the device, as whoever works there likes it. */
@Injectable({ providedIn: 'root' })
export class DialUp {
  private readonly path = signal(read());
  readonly isPath = computed(() => this.path());

  put(path: boolean): void {
    this.path.set(path);
    try {
      localStorage.setItem(name, path ? 'path' : 'north');
    } catch {
      // A browser that keeps nothing: north is up the next time.
    }
  }
}

function read(): boolean {
  try {
    return localStorage.getItem(name) === 'path';
  } catch {
    return false;
  }
}
