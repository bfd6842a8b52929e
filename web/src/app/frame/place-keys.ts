import { inject } from '@angular/core';
import { Router } from '@angular/router';
import { KeysService } from '../ui/keys.service';
import { RoomMap } from '../ui/rooms';
import { ViewState } from '../ui/view-state.service';

/** Keys to the places of the rail, wide window or narrow; call it where things may be injected. */
export function bindPlaceKeys(): void {
  const [router, view] = [inject(Router), inject(ViewState)];
  const go = (path: string) => () => void router.navigate([path], { queryParams: view.dayParams() });
  const places = [
    { keys: 'g d', path: '/desk', name: 'Desk' },
    { keys: 'g t', path: '/town', name: 'Town' },
    ...inject(RoomMap).stages.map(({ path, name }, i) => ({ keys: `g ${i + 1}`, path: `/${path}`, name })),
  ];
  inject(KeysService).bind(places.map(({ keys, path, name }) => ({ keys, where: 'Go to', does: name, run: go(path) })));
}
