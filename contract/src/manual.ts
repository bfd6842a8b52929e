import { glossary, termCodes } from '@sombra/core';
import { columnNotes } from './files/column-notes';
import { firstSteps } from './first-steps';
import { roleNames, roles } from './session';

/** The manual as Markdown, of the texts that the application shows: first steps by role, words, columns of files. */
export function manualText(): string {
  const steps = roles.flatMap((role) => [
    `### ${roleNames[role]}`,
    '',
    ...firstSteps[role].map(({ title, what, path }, i) => `${i + 1}. **${title}** (\`${path}\`). ${what}`),
    '',
  ]);
  const words = termCodes.map((code) => `- **${glossary[code].name}.** ${glossary[code].what}`);
  const columns = columnNotes.map(
    ({ columns: names, holds }) => `| ${names.map((name) => `\`${name}\``).join(', ')} | ${holds} |`,
  );
  return [
    '# Manual',
    '',
    'Written by `npm run manual` from the texts that the application itself shows under *Help* and *Import*; change them there.',
    '',
    'Sombra measures, reckons and reminds. Local codes, permits, the utilities’ marks and licensed practice come before all of it.',
    '',
    '## First steps',
    '',
    ...steps,
    '## Finding the way',
    '',
    '`?` shows every key, `/` finds anything by its name, `g` and a letter goes to a page, `u` takes back what was just stored, `e` goes into the form of what is open.',
    '',
    '## Words of the work',
    '',
    ...words,
    '',
    '## Columns of a file of spots',
    '',
    '| column | holds |',
    '| --- | --- |',
    ...columns,
    '',
  ].join('\n');
}
