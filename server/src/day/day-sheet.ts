import { arrangementNames, keptDayOf, type ArrangementName, type DayDetail } from '@sombra/contract';
import {
  clockOf,
  dayParts,
  formatQuantity,
  nameOfTeam,
  runOf,
  toolCodes,
  tools,
  toolsOf,
  type ToolCounts,
  type UnitSystem,
} from '@sombra/core';
import { openDocument } from '../paper/document';
import { plain } from '../paper/paint-drawing';
import { drawTable } from '../paper/table';
import { sayDay } from './letters';

const margin = 48;
const width = 595 - 2 * margin;

/** Said on every sheet; what a place's own codes say goes first. */
const safety = [
  'Gloves, eye protection and closed boots on before a tool is touched. Tools lie blade down, never leaned up.',
  'Call out before a pick swings and clear two metres round it: lift it and let it drop, do not force it.',
  'Balls are rolled on boards or carried by the ball, never lifted by the trunk. Nobody lifts alone what is too heavy.',
  'Dig only inside the marked and cleared area; by hand beside marks. A line that shows: stop, step back, tell a lead.',
  'Watch traffic and wires. Drink; rest in the shade. Thunder: everybody under a roof, and 30 minutes after the last.',
];

const toolWords = (counts: ToolCounts): string =>
  toolCodes.flatMap((code) => (counts[code] ? [`${counts[code]} × ${tools[code].toLowerCase()}`] : [])).join(', ');

export const openDaySheets = (detail: DayDetail, programme: string): PDFKit.PDFDocument =>
  openDocument({
    size: 'A4',
    margin,
    info: { Title: plain(`${detail.title}, ${sayDay(detail.onDay)}`), Author: plain(programme) },
  });

/** The papers of a day: the day's sheet, one for each team, sign-in, safety and pick list; A4. What its kind has no part in is left out. */
export function drawDaySheets(doc: PDFKit.PDFDocument, detail: DayDetail, units: UnitSystem): void {
  const parts = dayParts[detail.kind];
  const kept = keptDayOf(detail);
  const picks = toolsOf(kept);
  const runs = runOf(kept);
  const head = (text: string, size = 18) =>
    doc.font('head').fontSize(size).text(plain(text), margin).moveDown(0.3).font('text').fontSize(10);
  const say = (text: string) => doc.font('text').fontSize(10).text(plain(text), margin, undefined, { width });
  const nameOf = (id: string) => detail.people.find((one) => one.id === id)?.name ?? '';

  head(`${detail.title}, ${sayDay(detail.onDay)}`);
  const { hours } = detail;
  say(
    `Check-in ${clockOf(hours.gatherMin)}. Safety talk and demonstration ${clockOf(hours.beginMin)}. Clean-up ${clockOf(hours.endMin - hours.cleanUpMin)}. End ${clockOf(hours.endMin)}.`,
  );
  doc.moveDown(0.5);
  for (const [name, title] of Object.entries(arrangementNames)) {
    const words = detail.arrangements[name as ArrangementName];
    if (words !== '') say(`${title}: ${words}`);
  }
  doc.moveDown();
  if (!parts.teams) return drawTrees(doc, detail, units);
  head('Teams', 13);
  drawTable(
    doc,
    [
      { name: 'Team', width: 90 },
      { name: 'People', width: 210 },
      { name: 'Trees', width: 120 },
      { name: 'Done about', width: 70, align: 'right' },
    ],
    detail.teams.map((team, i) => [
      nameOfTeam(nameOf(team.leadId), i),
      team.helperIds.map(nameOf).join(', '),
      team.spotIds.map((id) => detail.trees.find(({ spotId }) => spotId === id)?.ref ?? '').join(', '),
      clockOf(Math.round(runs[i]?.finishMin ?? 0)),
    ]),
  );
  doc.moveDown();
  head('Tools and containers', 13);
  say(toolWords(picks.all) || 'None.');

  doc.moveDown();
  head('Drop-off, each tree tagged to its spot', 13);
  say(dropOff(detail));

  detail.teams.forEach((team, i) => {
    doc.addPage();
    head(`Team ${nameOfTeam(nameOf(team.leadId), i)}`);
    say(
      `Leads: ${nameOf(team.leadId)}. With: ${team.helperIds
        .filter((id) => id !== team.leadId)
        .map(nameOf)
        .join(', ')}.`,
    );
    say(`Takes along: ${toolWords(picks.teams[i] ?? {})}.`);
    doc.moveDown();
    drawTable(
      doc,
      [
        { name: 'Tree', width: 60 },
        { name: 'Place', width: 110 },
        { name: 'Species', width: 120 },
        { name: 'First water', width: 65, align: 'right' },
        { name: 'From', width: 45, align: 'right' },
        { name: 'To', width: 45, align: 'right' },
        { name: 'Done', width: 45 },
      ],
      team.spotIds.flatMap((id) => {
        const tree = detail.trees.find(({ spotId }) => spotId === id);
        const block = runs[i]?.blocks.find(({ spotId }) => spotId === id);
        if (!tree) return [];
        const at = (minutes: number | undefined) => (minutes === undefined ? '' : clockOf(Math.round(minutes)));
        const water = formatQuantity(tree.waterL, 'volumeL', units);
        return [[tree.ref, tree.place, tree.species ?? '', water, at(block?.fromMin), at(block?.toMin), '']];
      }),
    );
  });

  doc.addPage();
  head('Sign-in');
  drawTable(
    doc,
    [
      { name: 'Name', width: 160 },
      { name: 'Waiver', width: 70 },
      { name: 'Photos', width: 55 },
      { name: 'Came', width: 60 },
      { name: 'Left', width: 60 },
      { name: 'Signature', width: 90 },
    ],
    detail.people
      .filter(({ state }) => state === 'confirmed')
      .map((person) => [
        person.minor ? `${person.name} (minor, with ${nameOf(person.guardianId ?? '')})` : person.name,
        person.waiver ? 'signed' : 'MISSING',
        person.photos ? 'yes' : 'no',
        '',
        '',
        '',
      ]),
  );

  doc.addPage();
  head('Safety talk');
  for (const line of safety) say(`[ ]  ${line}`);
  doc.moveDown();
  say(
    `Nearest emergency department: ${detail.arrangements.emergency || 'not written down'}. First aid: ${detail.arrangements.firstAid || 'not written down'}.`,
  );
  say('Local codes and the advice of licensed practitioners go before anything on this sheet.');
}

/** Trees in the order the teams come to them: the first of each team, then the second of each. */
function dropOff({ teams, trees }: Pick<DayDetail, 'teams' | 'trees'>): string {
  const most = Math.max(0, ...teams.map(({ spotIds }) => spotIds.length));
  const order = Array.from({ length: most }, (_, i) => teams.flatMap(({ spotIds }) => spotIds[i] ?? [])).flat();
  const refs = order.map((id) => trees.find(({ spotId }) => spotId === id)?.ref ?? '');
  return refs.length === 0 ? 'No team has a tree yet.' : `${refs.join(', ')}.`;
}

/** Where no teams are made: every tree on one list, to be ticked as it is planted or taken home. */
function drawTrees(doc: PDFKit.PDFDocument, { trees, kind }: DayDetail, units: UnitSystem): void {
  drawTable(
    doc,
    [
      { name: 'Tree', width: 60 },
      { name: 'Place', width: 120 },
      { name: 'Species', width: 130 },
      { name: 'First water', width: 70, align: 'right' },
      { name: dayParts[kind].handsOut ? 'Handed to' : 'Planted', width: 110 },
    ],
    trees.map(({ ref, place, species, waterL }) => [
      ref,
      place,
      species ?? '',
      formatQuantity(waterL, 'volumeL', units),
      '',
    ]),
  );
}
