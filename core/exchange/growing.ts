/** A column of numbers that grows: twice as much room is taken each time it is full, so that a million rows cost a million steps. */
export class Growing {
  private room = new Float64Array(1024);
  length = 0;

  /** A column that begins with those. */
  static of(first: Float64Array): Growing {
    const column = new Growing();
    for (const value of first) column.push(value);
    return column;
  }

  /** What was pushed last. */
  get last(): number {
    return this.room[this.length - 1] ?? Number.NaN;
  }

  push(value: number): void {
    if (this.length === this.room.length) {
      const wider = new Float64Array(this.length * 2);
      wider.set(this.room);
      this.room = wider;
    }
    this.room[this.length] = value;
    this.length += 1;
  }

  /** What was pushed: a view, not a copy. */
  rows(): Float64Array<ArrayBuffer> {
    return this.room.subarray(0, this.length);
  }
}
