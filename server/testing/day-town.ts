import type { DayDetail, NewDayEvent } from '@sombra/contract';
import { addDaysTo, type IsoDate } from '@sombra/core';
import { randomUUID } from 'node:crypto';
import { programmeToday } from '../src/programme/today';
import { container, loam, openTestTown, sending, Visitor, type TestTown } from './test-town';

/** A town in which a planting day is worked on: a coordinator, a crew lead, and spots that are ready. */
export interface DayTown {
  readonly town: TestTown;
  readonly cora: Visitor;
  readonly leo: Visitor;
  readonly today: IsoDate;
  readonly onDay: IsoDate;
  readySpot(): Promise<string>;
  makeDay(change?: object): Promise<DayDetail>;
  read(id: string): Promise<DayDetail>;
}

export async function openDayTown(): Promise<DayTown> {
  const town = await openTestTown();
  const cora = await Visitor.signedIn(town.url, 'cora');
  const leo = await Visitor.signedIn(town.url, 'leo');
  const today = await programmeToday(town.db);
  const onDay = addDaysTo(today, 3);
  let spots = 0;
  return {
    town,
    cora,
    leo,
    today,
    onDay,
    async readySpot() {
      const { spotId } = await town.addSpot(`D-${String(++spots).padStart(4, '0')}`);
      const records = [
        { kind: 'ground', facts: loam },
        { kind: 'stock', facts: container },
      ] as const;
      for (const [i, record] of records.entries()) {
        const { status } = await cora.send('POST', '/api/records', sending(spotId, record, i + 1));
        if (status >= 300) throw new Error(`${record.kind} was answered ${status}`);
      }
      return spotId;
    },
    async makeDay(change = {}) {
      const asked = {
        id: randomUUID(),
        title: 'Mole Street',
        onDay,
        kind: 'volunteers',
        capacity: 10,
        spotIds: [],
        copyOf: null,
        ...change,
      };
      const { status, body } = await cora.send<DayDetail>('POST', '/api/planting-days', asked);
      if (status !== 201) throw new Error(`the day was answered ${status}: ${JSON.stringify(body)}`);
      return body;
    },
    read: async (id) => (await cora.send<DayDetail>('GET', `/api/planting-days/${id}`)).body,
  };
}

export const dayEvent = <K extends NewDayEvent['kind']>(
  kind: K,
  facts: Extract<NewDayEvent, { kind: K }>['facts'],
) => ({ id: randomUUID(), at: new Date().toISOString(), device: 'test', aheadMs: null, kind, facts });
