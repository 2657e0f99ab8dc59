import { boolean, string } from 'yup';
import { figureOf, idField } from './fields';
import { STATUSES } from './statuses';

const seen = () => boolean();

/** What is seen of one charger: chime, icon and meter each for itself, for they disagree. */
export const trialFields = {
  state: string()
    .oneOf(['awake', 'asleep'] as const)
    .required(),
  status: string()
    .oneOf(STATUSES.map(({ id }) => id))
    .required(),
  percent: figureOf('percent'),
  volts: figureOf('volts'),
  amps: figureOf('amps'),
  watts: figureOf('watts'),
  chime: seen(),
  icon: seen(),
  /** Whether the meter shows current. */
  meter: seen(),
  remark: string().max(200),
  /** The trial that this is a second look at: only its level counts. */
  confirms: idField().optional(),
};
