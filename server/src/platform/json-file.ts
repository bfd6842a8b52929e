import { InvalidInputError } from '@sombra/core';

/** Deeper than any GeoJSON: a feature's polygon with holes in a multipolygon comes to nine. */
const mostDeep = 40;

/**
 * The value of a JSON text that is nested no deeper than files of this kind are.
 * @throws InvalidInputError, path `file`
 */
export function parseJsonFile(text: string, broken: string): unknown {
  requireShallow(text);
  try {
    return JSON.parse(text);
  } catch {
    throw new InvalidInputError(`file: ${broken}`, 'file', {
      title: `${broken.charAt(0).toUpperCase()}${broken.slice(1)}`,
    });
  }
}

const [quote, backslash] = [34, 92];

function requireShallow(text: string): void {
  let deep = 0;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === quote) i = endOfString(text, i);
    else if (code === 91 || code === 123) deep += 1;
    else if (code === 93 || code === 125) deep -= 1;
    if (deep > mostDeep) {
      const title = `The file is nested deeper than ${mostDeep} levels`;
      throw new InvalidInputError(`file must be nested ${mostDeep} levels at most`, 'file', { title });
    }
  }
}

/** The place of the quote that closes a string, or the end of the text. */
function endOfString(text: string, from: number): number {
  for (let at = from + 1; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === backslash) at += 1;
    else if (code === quote) return at;
  }
  return text.length;
}
