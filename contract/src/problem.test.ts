import { problemIssues } from './problem';
import { sendRecordSchema } from './sent-records';
import { practiceSchema } from './practice';
import { fieldDefault } from '@sombra/core';

const sent = (facts: object) => ({
  spotId: '0190a5c2-0000-7000-8000-000000000001',
  device: 'phone',
  spotVersion: null,
  record: {
    id: '0190a5c2-0000-7000-8000-000000000002',
    kind: 'stock',
    recordedAt: '2026-06-01T10:00:00Z',
    supersedes: null,
    facts,
  },
});

describe('problems of a body', () => {
  const issuesOf = (facts: object) => {
    const parsed = sendRecordSchema.safeParse(sent(facts), { reportInput: true });
    return parsed.success ? [] : problemIssues(parsed.error);
  };
  const good = {
    kind: 'container',
    caliperMm: 50,
    heightM: 3,
    ballDiameterMm: 450,
    ballHeightMm: 400,
    topRootsDepthMm: 60,
  };

  it('name field, value and limit', () => {
    expect(issuesOf({ ...good, heightM: 40000 })).toEqual([
      {
        path: 'record.facts.heightM',
        message: 'must be within 0.2–25 m, got 40000',
        received: 40000,
        min: 0.2,
        max: 25,
        unit: 'm',
      },
    ]);
    expect(issuesOf({ ...good, ballDiameterMm: 4500 })).toEqual([
      {
        path: 'record.facts.ballDiameterMm',
        message: 'must be within 100–3000 mm, got 4500',
        received: 4500,
        min: 100,
        max: 3000,
        unit: 'mm',
      },
    ]);
  });

  it('do not echo words', () => {
    expect(JSON.stringify(issuesOf({ ...good, caliperMm: 'Jane Doe' }))).not.toContain('Jane');
  });

  it('refuse what they do not know', () => {
    expect(issuesOf({ ...good, extra: 1 })).toHaveLength(1);
  });
});

it('takes the shipped practice as it is', () => {
  expect(practiceSchema.parse(fieldDefault)).toEqual(fieldDefault);
});
