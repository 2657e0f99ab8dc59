/** A column of numbers that grows: twice as much room is taken each time it is full, so that a million rows cost a million steps. */
export class Growing {
  private room = new Float64Array(1024);
  private length = 0;

  push(value: number): void {
    if (this.length === this.room.length) {
      const wider = new Float64Array(this.length * 2);
      wider.set(this.room);
      this.room = wider;
    }
    this.room[this.length] = value;
    this.length += 1;
  }

  /** What was pushed, in an array of its own. */
  whole(): Float64Array<ArrayBuffer> {
    return this.room.slice(0, this.length);
  }
}
