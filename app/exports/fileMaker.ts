/** Parts are handed to the browser, which keeps them out of the way, when they come to so many bytes or characters. */
const PART_SIZE = 4_000_000;

/** A file that is made piece by piece. */
export class FileMaker {
  private readonly parts: Blob[] = [];
  private some: (string | Uint8Array<ArrayBuffer>)[] = [];
  private length = 0;

  constructor(private readonly type: string) {}

  add(piece: string | Uint8Array<ArrayBuffer>): void {
    this.some.push(piece);
    this.length += piece.length;
    if (this.length < PART_SIZE) return;
    this.parts.push(new Blob(this.some));
    [this.some, this.length] = [[], 0];
  }

  /** Adds a file that is whole already. */
  addFile(file: Blob): void {
    this.parts.push(new Blob(this.some), file);
    [this.some, this.length] = [[], 0];
  }

  end(): Blob {
    return new Blob([...this.parts, ...this.some], { type: this.type });
  }
}
