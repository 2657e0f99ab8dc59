import { boolean, number, string } from 'yup';
import { QUANTITIES, type Quantity } from '../quantity/quantity';
import { fieldFigure, idField } from './fields';
import { STATUSES } from './statuses';
import { TRIAL_STATES } from './trialStates';

const seen = () => boolean();

/** What is seen of one charger: chime, icon and meter each for itself, for they disagree. */
export const trialFields = {
  state: string().oneOf(TRIAL_STATES).required(),
  status: string()
    .oneOf(STATUSES.map(({ id }) => id))
    .required(),
  /** Of the quantities whatever was read; `watts` into the source where it is a pad, into the device where it is not. */
  ...(Object.fromEntries(QUANTITIES.map((quantity) => [quantity, fieldFigure(quantity)])) as Record<
    Quantity,
    ReturnType<typeof fieldFigure>
  >),
  /** Before the handshake, in V: 5 where it went on to 9. */
  voltsBefore: fieldFigure('volts'),
  /** What a pad gave out, in W, and whether that was metered or taken for granted. */
  wattsOut: fieldFigure('watts'),
  wattsOutAssumed: boolean().oneOf([true] as const),
  chime: seen(),
  /** How often it chimed: again and again where it connects and lets go. */
  chimes: number().integer().min(0).max(99),
  icon: seen(),
  /** Whether the meter shows current. */
  meter: seen(),
  remark: string().max(200),
  /** The trial that this is a second look at: only its level counts. */
  confirms: idField().optional(),
  /** The person was asked whether this could be, and kept it. */
  sure: boolean().oneOf([true] as const),
};
