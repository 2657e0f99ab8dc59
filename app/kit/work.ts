/** How far a long work is: so many of so many, of what its teller says. */
export interface Work {
  done: number;
  of: number;
}
export type Progress = (done: number, of: number) => void;
