import { columnNotes, templateColumns } from './column-notes';
import { requiredColumns, spotColumns } from './spot-row';

describe('the columns of a file', () => {
  it('are each said once, in their order', () => {
    expect(columnNotes.flatMap(({ columns }) => columns)).toEqual(spotColumns);
  });

  it('of a template hold what is required, and nothing an export alone writes', () => {
    expect(templateColumns).toEqual(expect.arrayContaining([...requiredColumns]));
    expect(templateColumns).not.toContain('records');
  });
});
