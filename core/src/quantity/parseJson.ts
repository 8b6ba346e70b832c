/** Nothing of ours is nested deeper; the parser takes a third of a second on a megabyte of open brackets. */
const MOST_DEPTH = 200;
const QUOTE = 34;
const BACKSLASH = 92;

/** A JSON text as what it says; undefined where it is none, or nested deeper than anything that is read here. Cannot throw. */
export function parseJson(text: string): unknown {
  if (isTooDeep(text)) return undefined;
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

function isTooDeep(text: string): boolean {
  let depth = 0;
  let isInText = false;
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    if (isInText) {
      if (code === BACKSLASH) at += 1;
      else if (code === QUOTE) isInText = false;
    } else if (code === QUOTE) isInText = true;
    else if (code === 91 || code === 123) {
      depth += 1;
      if (depth > MOST_DEPTH) return true;
    } else if (code === 93 || code === 125) depth -= 1;
  }
  return false;
}
