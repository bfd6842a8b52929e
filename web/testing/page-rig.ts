import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import type { EnvironmentProviders, Provider, Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { FakeSession, provideFakeSession } from './fake-session';

interface Shown {
  readonly address?: string;
  readonly inputs?: Readonly<Record<string, unknown>>;
  readonly providers?: readonly (Provider | EnvironmentProviders)[];
}

const plain = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** A page or a part of one, at an address, with a signed-in person and no server. */
export class PageRig<T> {
  readonly session = new FakeSession();
  fixture!: ComponentFixture<T>;
  http!: HttpTestingController;

  async show(component: Type<T>, { address = '/', inputs = {}, providers = [] }: Shown = {}): Promise<void> {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        provideRouter([{ path: '**', children: [] }]),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideFakeSession(this.session),
        ...providers,
      ],
    });
    this.http = TestBed.inject(HttpTestingController);
    await TestBed.inject(Router).navigateByUrl(address);
    this.fixture = TestBed.createComponent(component);
    for (const [name, value] of Object.entries(inputs)) this.fixture.componentRef.setInput(name, value);
    await this.settle();
  }

  /** Until what was started has been shown; microtasks of answered calls included. */
  async settle(): Promise<void> {
    await this.fixture.whenStable();
    await new Promise((resolve) => setTimeout(resolve));
    await this.fixture.whenStable();
  }

  get element(): HTMLElement {
    return this.fixture.nativeElement as HTMLElement;
  }
  get text(): string {
    return plain(this.element.textContent);
  }
  get address(): string {
    return TestBed.inject(Router).url;
  }

  /** Rows of tables: the words of their cells, empty ones left out. */
  rows(): string[] {
    return [...this.element.querySelectorAll('tr')].map((row) =>
      [...row.cells]
        .map((cell) => plain(cell.textContent))
        .filter((words) => words !== '')
        .join(' '),
    );
  }

  /** A field by its label, or by the name it has for readers of screens. */
  field(name: string): HTMLInputElement | HTMLSelectElement {
    const fields = [...this.element.querySelectorAll<HTMLInputElement | HTMLSelectElement>('input, select, textarea')];
    const found = fields.find(
      (one) =>
        one.getAttribute('aria-label') === name ||
        plain(one.closest('label')?.firstChild?.textContent ?? '') === name ||
        [...this.element.querySelectorAll('label')].some(
          (label) => label.htmlFor !== '' && label.htmlFor === one.id && plain(label.textContent) === name,
        ),
    );
    if (!found) throw new Error(`no field ${name}`);
    return found;
  }

  async fill(name: string, value: string): Promise<void> {
    const field = this.field(name);
    field.value = value;
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new Event('change'));
    await this.settle();
  }

  button(name: string): HTMLElement {
    const all = [...this.element.querySelectorAll<HTMLElement>('button, a')];
    const found = all.find((one) => plain(one.textContent) === name || one.getAttribute('aria-label') === name);
    if (!found) throw new Error(`no button ${name}`);
    return found;
  }

  async press(name: string): Promise<void> {
    this.button(name).click();
    await this.settle();
  }
}
