import { ImportError } from './importError';
import { DEEPEST, LONGEST_PIECE } from './limits';

/** What the pieces of an object in JSON go to. Texts are JSON of their own. */
export interface JsonPieces {
  /** A member that is taken whole. */
  value: (key: string, text: string) => void;
  /** An item of a member that is a list. */
  item: (key: string, index: number, text: string) => void;
  /** A member of a member that is an object, where `isOpen` says that it comes piece by piece. */
  member: (key: string, name: string, text: string) => void;
  /** A member that is a list or comes piece by piece begins. */
  begin: (key: string) => void;
}

/** Letters that say how a text in JSON is made, by their codes. */
const [QUOTE, BACKSLASH, COMMA, COLON] = [0x22, 0x5c, 0x2c, 0x3a];
const isBracket = (letter: number) => letter === 0x7b || letter === 0x7d || letter === 0x5b || letter === 0x5d;

/**
 * Takes a text in JSON apart while it is still being read, so that no more of it is held than one item of a list: a logbook may be larger
 * than any text can be. Whatever it does not look at, `JSON.parse` of the pieces does.
 *
 * @throws {ImportError} when it is not an object in JSON, or was cut off
 */
export class JsonSplitter {
  private depth = 0;
  private isInText = false;
  /** The next character of a text belongs to a backslash that ended the part before. */
  private isEscaped = false;
  private parts: string[] = [];
  private length = 0;
  private key = '';
  private name = '';
  /** What closes the member that comes piece by piece, while it does. */
  private closing = '';
  private index = 0;
  /** Members that came so far. */
  private members = 0;
  private isOver = false;

  /**
   * @param file   its name, for errors
   * @param isOpen whether a member that is an object comes piece by piece
   * @param longest of a piece, in characters
   */
  constructor(
    private readonly file: string,
    private readonly pieces: JsonPieces,
    private readonly isOpen: (key: string) => boolean,
    private readonly longest = LONGEST_PIECE,
  ) {}

  /** Reads on. A loop over its letters: a logbook has millions. */
  push(text: string): void {
    let from = 0;
    let at = 0;
    if (this.isEscaped) [at, this.isEscaped] = [1, false];
    for (; at < text.length; at += 1) {
      const letter = text.charCodeAt(at);
      if (this.isInText) {
        if (letter === QUOTE) this.isInText = false;
        else if (letter === BACKSLASH) {
          at += 1;
          this.isEscaped = at === text.length;
        }
      } else if (letter === QUOTE) this.isInText = true;
      else if (isBracket(letter) || (this.depth <= 2 && (letter === COMMA || letter === COLON))) {
        if (this.structure(text.charAt(at), text, from, at)) from = at + 1;
      }
    }
    this.keep(text, from, text.length);
  }

  /** Nothing comes after. */
  end(): void {
    if (!this.isOver || this.piece().trim() !== '') this.refuse();
  }

  /** @returns whether a piece ended or began here */
  private structure(mark: string, text: string, from: number, at: number): boolean {
    if (this.isOver) this.refuse();
    const take = () => {
      this.keep(text, from, at);
      return this.piece();
    };
    switch (mark) {
      case '{':
      case '[': {
        this.depth += 1;
        if (this.depth > DEEPEST)
          throw new ImportError(`${this.file} holds values more than ${DEEPEST} deep: no logbook does. Choose another file.`);
        if (this.depth === 1) {
          if (mark === '[' || take().trim() !== '') this.refuse();
          return true;
        }
        const opens = this.depth === 2 && (mark === '[' || this.isOpen(this.key));
        if (!opens) return false;
        if (take().trim() !== '') this.refuse();
        [this.closing, this.index] = [mark === '[' ? ']' : '}', 0];
        this.pieces.begin(this.key);
        return true;
      }
      case ':':
        if (this.depth === 1) this.key = this.label(take());
        else if (this.depth === 2 && this.closing === '}') this.name = this.label(take());
        else return false;
        return true;
      case ',':
        if (this.depth === 1) this.value(take());
        else if (this.depth === 2 && this.closing) this.entry(take());
        else return false;
        return true;
      default: {
        const isPiece = this.depth === 2 && this.closing !== '';
        if (isPiece) {
          if (mark !== this.closing) this.refuse();
          const last = take();
          if (this.index > 0 || last.trim() !== '') this.entry(last);
          this.closing = '';
          this.isTaken = true;
        }
        if (this.depth === 1) {
          if (mark !== '}') this.refuse();
          const last = take();
          if (this.members > 0 || this.key || last.trim() !== '') this.value(last);
          this.isOver = true;
        }
        this.depth -= 1;
        return isPiece || this.depth === 0;
      }
    }
  }

  /** The member at hand came piece by piece. */
  private isTaken = false;

  private value(text: string): void {
    if (this.isTaken) {
      if (text.trim() !== '') this.refuse();
    } else if (this.key === '') this.refuse();
    else this.pieces.value(this.key, text);
    [this.isTaken, this.key] = [false, ''];
    this.members += 1;
  }

  private entry(text: string): void {
    if (text.trim() === '') this.refuse();
    if (this.closing === ']') this.pieces.item(this.key, this.index, text);
    else this.pieces.member(this.key, this.name, text);
    this.index += 1;
  }

  private label(text: string): string {
    const found: unknown = parseJson(text, this.file);
    return typeof found === 'string' && found !== '' ? found : this.refuse();
  }

  private keep(text: string, from: number, to: number): void {
    if (to <= from) return;
    this.parts.push(text.slice(from, to));
    this.length += to - from;
    if (this.length > this.longest)
      throw new ImportError(`${this.file} holds a run that is larger than any that is kept. It was not written by Inkpath Log.`);
  }

  private piece(): string {
    const whole = this.parts.join('');
    [this.parts, this.length] = [[], 0];
    return whole;
  }

  private refuse(): never {
    throw notJson(this.file);
  }
}

const notJson = (name: string) =>
  new ImportError(`${name} is not JSON, or was cut off. Choose a logbook that Inkpath Log exported, or export it again.`);

/** @throws {ImportError} */
export function parseJson(text: string, name: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw notJson(name);
  }
}
