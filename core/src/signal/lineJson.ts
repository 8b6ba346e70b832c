/**
 * One JSON object on a line, as boards print it, read into its fields: numbers and texts of the object itself and of objects in it, as "c2.raw"; deeper
 * nesting is no probe's reading. Own code because the usual parser throws on damaged text, and a stream at the wrong speed is nothing but damaged text: a
 * megabyte of it took nine seconds.
 */
export type JsonField = readonly [name: string, value: number | string];

/** Nesting beyond this is refused. */
const DEEPEST = 20;

/** The fields of a line, in order; null when it is no JSON object from end to end. Cannot throw. */
export function readLineJson(text: string): readonly JsonField[] | null {
  const reader = new Reader(text);
  const fields: JsonField[] = [];
  return reader.object(fields, '', 0) && reader.isAtEnd() ? fields : null;
}

const NUMBER = /-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?/y;
const ESCAPES = /^(?:[^\\]|\\(?:["\\/bfnrt]|u[0-9a-fA-F]{4}))*$/;

class Reader {
  private at = 0;

  constructor(private readonly text: string) {}

  isAtEnd(): boolean {
    this.blanks();
    return this.at === this.text.length;
  }

  /** @param prefix put in front of each name; null takes no fields from here on */
  object(fields: JsonField[], prefix: string | null, depth: number): boolean {
    if (depth > DEEPEST || !this.take('{')) return false;
    if (this.take('}')) return true;
    do {
      this.blanks();
      const name = this.string();
      if (name === null || !this.take(':')) return false;
      if (!this.value(fields, prefix === null ? null : `${prefix}${name}`, depth)) return false;
    } while (this.take(','));
    return this.take('}');
  }

  /** One value; @param name what it is called when it is wanted */
  private value(fields: JsonField[], name: string | null, depth: number): boolean {
    this.blanks();
    const first = this.text[this.at];
    if (first === '{')
      return this.object(fields, name !== null && depth === 0 ? `${name}.` : null, depth + 1);
    if (first === '[') return this.list(depth + 1);
    if (first === '"') {
      const read = this.string();
      if (read === null) return false;
      if (name !== null) fields.push([name, read]);
      return true;
    }
    for (const word of ['true', 'false', 'null'])
      if (this.text.startsWith(word, this.at)) {
        this.at += word.length;
        return true;
      }
    NUMBER.lastIndex = this.at;
    const number = NUMBER.exec(this.text)?.[0];
    if (number === undefined) return false;
    this.at += number.length;
    if (name !== null) fields.push([name, Number(number)]);
    return true;
  }

  private list(depth: number): boolean {
    if (depth > DEEPEST || !this.take('[')) return false;
    if (this.take(']')) return true;
    do {
      if (!this.value([], null, depth)) return false;
    } while (this.take(','));
    return this.take(']');
  }

  private string(): string | null {
    if (this.text[this.at] !== '"') return null;
    let end = this.text.indexOf('"', this.at + 1);
    while (end >= 0 && this.isEscaped(end)) end = this.text.indexOf('"', end + 1);
    if (end < 0) return null;
    const inner = this.text.slice(this.at + 1, end);
    this.at = end + 1;
    if (!inner.includes('\\')) return inner;
    return ESCAPES.test(inner) ? (JSON.parse(`"${inner}"`) as string) : null;
  }

  /** A quote behind an odd number of backslashes is part of the text. */
  private isEscaped(quote: number): boolean {
    let slashes = 0;
    while (this.text[quote - 1 - slashes] === '\\') slashes += 1;
    return slashes % 2 === 1;
  }

  private take(mark: string): boolean {
    this.blanks();
    if (this.text[this.at] !== mark) return false;
    this.at += 1;
    return true;
  }

  private blanks(): void {
    while (this.text[this.at] === ' ' || this.text[this.at] === '\t') this.at += 1;
  }
}
