import { type Mapping, type Peek } from '@core/exchange';
import { SCHEMA } from '@core/ink';
import { save } from '../ledger/acts';
import { keyOf } from '../ledger/keys';
import { remembered } from '../ledger/readAhead';

/** How logs were read before, by what heads them: the next log of the same meter is read alike. */
const NAME = 'mappings';
interface Stored {
  schema: number;
  byHeading: Record<string, Mapping>;
}
/** So many are kept; the oldest is forgotten first. */
const MOST = 40;

/** What tells the logs of one meter from those of another: its heading, or how many columns it has. */
const headingOf = ({ rows, mapping }: Peek) =>
  mapping.headingRow === undefined ? `${mapping.columns.length} columns` : (rows[mapping.headingRow] ?? []).join('\t').slice(0, 400);

const stored = async () => (await remembered<Stored>(NAME))?.byHeading ?? {};

/** How a log like this was read before, if it was. */
export async function mappingFor(peek: Peek): Promise<Mapping | undefined> {
  const found = (await stored())[headingOf(peek)];
  return found?.columns.length === peek.mapping.columns.length ? found : undefined;
}

/** Keeps how a log was read. Losing it costs a look at its columns, and nothing that was logged. */
export async function keepMapping(peek: Peek, mapping: Mapping): Promise<void> {
  const before = Object.entries(await stored()).filter(([key]) => key !== headingOf(peek));
  const byHeading = Object.fromEntries([...before.slice(1 - MOST), [headingOf(peek), mapping]]);
  await save([[keyOf('setting', NAME), { schema: SCHEMA, byHeading } satisfies Stored]]);
}
