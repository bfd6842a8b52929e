import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Router } from '@angular/router';
import type { Role } from '@sombra/contract';
import { SessionService } from '../session/session.service';

interface Place {
  readonly path: string;
  readonly queryParams?: Readonly<Record<string, string>>;
}

/** Where each role finds its work. */
const landings: Readonly<Record<Role, Place>> = {
  coordinator: { path: '/desk' },
  administrator: { path: '/desk' },
  crew_lead: { path: '/day', queryParams: { as: 'both' } },
  inspector: { path: '/inspect', queryParams: { due: 'week', sort: 'dueOn' } },
  waterer: { path: '/town', queryParams: { probe: 'dry,slightly_dry', as: 'both' } },
  viewer: { path: '/town' },
};

@Component({ selector: 's-landing', changeDetection: ChangeDetectionStrategy.OnPush, template: `` })
export class Landing {
  constructor() {
    const session = inject(SessionService);
    const role = session.user()?.role ?? 'coordinator';
    // Without a network the work is what was taken along.
    const { path, queryParams }: Place = session.away() ? { path: '/along' } : landings[role];
    void inject(Router).navigate([path], { queryParams, replaceUrl: true });
  }
}
