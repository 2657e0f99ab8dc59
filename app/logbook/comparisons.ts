import { nanoid } from 'nanoid';
import { array, number, object, string, type InferType } from 'yup';
import { SCHEMA } from '@core/ink';
import { shelfBook, store } from '../ledger/databases';

/** Comparisons that have a name: the runs that were laid beside each other, and how they were looked at. */
const KEY = 'comparisons';

const comparisonSchema = object({
  id: string().required().max(40),
  name: string().trim().required('Give it a name.').max(120, 'A name has 120 characters at most.'),
  /** When it was kept, epoch milliseconds. */
  at: number().required(),
  /** The address of it, without the place: `?runs=…&base=…`. */
  runs: array().of(string().required().max(60)).min(2).required(),
  base: string().max(60),
  level: string().max(8),
  unit: string().max(8),
  columns: array().of(string().required().max(60)),
}).noUnknown();

const storedSchema = object({ schema: number().required(), all: array().of(comparisonSchema).required() });

export type Comparison = InferType<typeof comparisonSchema>;

/** Those that are kept, the latest first. What cannot be read is left where it is, and out. */
export async function comparisonsKept(): Promise<Comparison[]> {
  const found: unknown = await shelfBook.getItem(KEY);
  if (!storedSchema.isValidSync(found)) return [];
  return [...storedSchema.cast(found).all].sort((one, other) => other.at - one.at);
}

/** Keeps a comparison under its name: one of the same name is written over. @throws {ValidationError | StorageTrouble} */
export async function keepComparison(made: Omit<Comparison, 'id' | 'at'>): Promise<Comparison[]> {
  const checked = comparisonSchema.validateSync({ ...JSON.parse(JSON.stringify(made)), id: nanoid(12), at: Date.now() });
  const others = (await comparisonsKept()).filter(({ name }) => name !== checked.name);
  return write([checked, ...others]);
}

/** Throws a comparison away; its runs stay. @throws {StorageTrouble} */
export async function dropComparison(id: string): Promise<Comparison[]> {
  return write((await comparisonsKept()).filter((each) => each.id !== id));
}

async function write(all: Comparison[]): Promise<Comparison[]> {
  await store(shelfBook, KEY, { schema: SCHEMA, all });
  return all;
}
