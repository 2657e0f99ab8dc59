/** What a sentence of a verdict says, as data: what it is of, and as it is written. So it can be seen that no sentence denies another. */
export interface Claim {
  /** The device, or the devices, that are judged. */
  of: string;
  /** Of which figure, by its id; or of what else: `price`, `nights`. */
  figure: string;
  /** What has the figure: a setup by its name, or something else that is named. */
  who: string;
  /**
   * What is said: `is` so much; `better` than another, `alike` as it, or `unbeaten` by it; `serves` a need or `fails` it.
   */
  says: 'is' | 'better' | 'alike' | 'unbeaten' | 'serves' | 'fails';
  /** The other one. */
  than?: string | undefined;
  /** So much, or by how much, as the sentence has it. */
  value?: string | undefined;
}

/** What is claimed within one group: its device is filled in. */
export type OwnClaim = Omit<Claim, 'of'>;
