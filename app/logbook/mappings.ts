import { LONGEST_HEADING, MOST_REMEMBERED, type Mapping, type Peek, type Remembered } from '@core/exchange';
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

/** What tells the logs of one meter from those of another: its heading, or how many columns it has. */
const headingOf = ({ rows, mapping }: Peek) =>
  mapping.headingRow === undefined
    ? `${mapping.columns.length} columns`
    : (rows[mapping.headingRow] ?? []).join('\t').slice(0, LONGEST_HEADING);

const stored = async () => (await remembered<Stored>(NAME))?.byHeading ?? {};

/** How a log like this was read before, if it was. */
export async function mappingFor(peek: Peek): Promise<Mapping | undefined> {
  const found = (await stored())[headingOf(peek)];
  return found?.columns.length === peek.mapping.columns.length ? found : undefined;
}

/** Keeps how a log was read. Losing it costs a look at its columns, and nothing that was logged. */
export async function keepMapping(peek: Peek, mapping: Mapping): Promise<void> {
  await keep([...(await everyMapping()).filter(({ heading }) => heading !== headingOf(peek)), { heading: headingOf(peek), ...mapping }]);
}

/** Takes over how logs were read elsewhere, for headings that none here has. */
export async function addMappings(others: readonly Remembered[]): Promise<void> {
  const here = await everyMapping();
  const news = others.filter(({ heading }) => !here.some((each) => each.heading === heading));
  if (news.length > 0) await keep([...news, ...here]);
}

/** How logs were read, the oldest first. */
export const everyMapping = async (): Promise<Remembered[]> =>
  Object.entries(await stored()).map(([heading, { headingRow, columns }]) => ({
    heading,
    ...(headingRow !== undefined && { headingRow }),
    columns,
  }));

async function keep(all: readonly Remembered[]): Promise<void> {
  const byHeading = Object.fromEntries(
    all.slice(-MOST_REMEMBERED).map(({ heading, headingRow, columns }) => [heading, { headingRow, columns }] as const),
  );
  await save([[keyOf('setting', NAME), { schema: SCHEMA, byHeading } satisfies Stored]]);
}
