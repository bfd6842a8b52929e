import { TestBed } from '@angular/core/testing';
import { formatQuantity, type DigCover, type Move } from '@sombra/core';
import type { Stop } from '../along/stop';
import { geodesicBearingDeg, geodesicLengthM } from '../map/measure';
import { SessionService } from '../session/session.service';
import { MoveIt } from './move-it';

const metres = (m: number) => formatQuantity(m, 'clearanceM', 'metric');
const position: [number, number] = [-25.4, 36.9];
const stop = (records: unknown[] = []) => ({ id: 's', ref: 'A-1', position, records }) as unknown as Stop;
const ticket = (roomM: number): DigCover => ({ kind: 'ticket', number: '1', roomM, because: [] });

function show(cover: DigCover | null, at = stop()) {
  TestBed.configureTestingModule({
    providers: [{ provide: SessionService, useValue: { units: () => 'metric', today: () => '2026-12-05' } }],
  });
  const fixture = TestBed.createComponent(MoveIt);
  fixture.componentRef.setInput('stop', at);
  fixture.componentRef.setInput('cover', cover);
  const moves: Move[] = [];
  fixture.componentInstance.moved.subscribe((move) => moves.push(move));
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const press = (name: string) => {
    const button = [...host.querySelectorAll('button')].find(({ textContent }) => textContent?.trim() === name);
    if (!button) throw new Error(`no button ${name}`);
    button.click();
    fixture.detectChanges();
  };
  return { host, moves, press };
}

it('moves a spot so far and that way, with why', () => {
  const { moves, press } = show(ticket(4.5));
  press(metres(1));
  press('E');
  press('Move it there');
  const [move] = moves;
  if (!move) throw new Error('nothing moved');
  expect(move).toMatchObject({ movedOn: '2026-12-05', from: position, reason: 'moved for rock' });
  expect(geodesicLengthM([position, move.to])).toBeCloseTo(1, 3);
  expect(geodesicBearingDeg(position, move.to)).toBeCloseTo(90, 2);
});

it('refuses what lies outside the cleared area, counted from where it was cleared', () => {
  const before = { kind: 'move', facts: { movedOn: '2026-12-05', from: position, to: [-25.4, 36.90003] } };
  const { host, moves, press } = show(ticket(4.5), stop([before]));
  // It stands 3.3 m north already: 2 m more lie outside of 4.5 m, and 1 m does not.
  press(metres(2));
  press('N');
  expect(host.querySelector('[role=alert]')?.textContent).toContain('outside the cleared area');
  press('Move it there');
  expect(moves).toEqual([]);
  press(metres(1));
  expect(host.querySelector('[role=alert]')).toBeNull();
});

it('moves nothing where only the spot itself is cleared', () => {
  const { host, moves, press } = show({ kind: 'clearance', document: 'x', because: [] });
  expect(host.textContent).toContain('Only the spot itself is cleared');
  press(metres(0.3));
  press('S');
  press('Move it there');
  expect(moves).toEqual([]);
});
