import { object, string, type Schema } from 'yup';
import { SCHEMAS } from '../bench/schemas';
import { comparisonSchema } from '../compare/comparison';
import { idField } from '../ink/fields';
import { ownMethodSchema } from '../method/ownMethod';
import { studySchema } from '../plan/study';
import { pieceSchema } from '../report/pieceSchema';
import { misfit, type Misfit } from './fits';
import { ImportError, short } from './importError';
import { JsonSplitter, parseJson } from './jsonPieces';
import type { Logbook, StoredRun } from './logbook';
import { migrate } from './migrate';
import { runMisfit, prefixed } from './runMisfit';
import { typedSamples } from './samplesFit';
import { rememberedSchema, settingsSchema } from './settings';

/** The lists of a logbook, and what each of their items must be. */
const LISTS = {
  devices: SCHEMAS.device,
  chargers: SCHEMAS.charger,
  cables: SCHEMAS.cable,
  meters: SCHEMAS.meter,
  methods: ownMethodSchema,
  studies: studySchema,
  comparisons: comparisonSchema,
  pieces: pieceSchema,
  remembered: rememberedSchema,
  runs: undefined,
} as const satisfies Partial<Record<keyof Logbook, Schema | undefined>>;
type ListName = keyof typeof LISTS;
/** Lists that older files of this schema do not have. */
const LATER: ReadonlySet<ListName> = new Set(['comparisons', 'pieces', 'remembered']);
const isList = (key: string): key is ListName => Object.hasOwn(LISTS, key);

const headSchema = object({ exportedAt: string().required(), settings: settingsSchema.default(undefined).optional() });
const PICTURE = /^data:image\/(jpeg|png|webp);base64$/;

/**
 * Reads a logbook from JSON, of this schema or an older one, as its text comes in: it may be as large as the disk holds. Every item is checked
 * before the next is read.
 *
 * @throws {ImportError} naming the place in the file and the way out
 */
export class LogbookReader {
  private readonly splitter: JsonSplitter;
  /** Without a prototype, so that a key of that name is a part like any other, and refused. */
  private readonly head = Object.create(null) as Record<string, unknown>;
  private readonly lists = new Map<ListName, unknown[]>();
  private readonly counts = new Map<ListName, number>();
  /** Items that came before the schema was known. */
  private early: [key: ListName, text: string][] = [];
  private readonly pictures: Record<string, string> = {};
  private readonly runs = new Set<string>();
  private isEmpty = true;

  private readonly name: string;

  /**
   * @param file the file's name, for errors
   * @param keep what becomes of each run that was read: it stands in the logbook, or nothing does where it is only looked at
   */
  constructor(
    file: string,
    private readonly keep: (run: StoredRun) => StoredRun | undefined = (run) => run,
  ) {
    const name = short(file);
    this.name = name;
    const pieces = {
      value: (key: string, text: string) => {
        if (isList(key)) throw this.unfit({ path: key, says: 'is not a list' });
        this.head[key] = parseJson(text, name);
      },
      begin: (key: string) => {
        if (isList(key)) this.lists.set(key, this.lists.get(key) ?? []);
        else if (key !== 'pictures') this.head[key] = [];
      },
      item: (key: string, _index: number, text: string) => {
        if (!isList(key)) return;
        if (this.head.schema === undefined) this.early.push([key, text]);
        else this.take(key, text);
      },
      member: (key: string, id: string, text: string) => {
        this.takePicture(`${key}.${short(id)}`, id, parseJson(text, name));
      },
    };
    this.splitter = new JsonSplitter(name, pieces, (key) => key === 'pictures');
  }

  push(text: string): void {
    if (text.includes('\0')) throw new ImportError(`${this.name} is not a text file. Choose a logbook that Inkpath Log exported.`);
    if (text.trim() !== '') this.isEmpty = false;
    this.splitter.push(this.isEmpty ? '' : text);
  }

  /** The logbook, once all of it was read. */
  end(): Logbook {
    if (this.isEmpty) throw new ImportError(`${this.name} is empty. Choose the file again, or export it again from where it was made.`);
    this.splitter.end();
    const head = this.migrated({});
    if (head.format !== 'inkpath-logbook')
      throw new ImportError(`${this.name} is JSON, but not a logbook. Choose a file that Inkpath Log exported.`);
    for (const [key, text] of this.early) this.take(key, text);
    this.early = [];
    const lists = Object.fromEntries(
      (Object.keys(LISTS) as ListName[]).map((key) => {
        const items = this.lists.get(key) ?? (Array.isArray(head[key]) || LATER.has(key) ? [] : undefined);
        if (!items) throw this.unfit({ path: key, says: 'is missing' });
        return [key, items];
      }),
    );
    const stranger = Object.keys(head).find(
      (key) => !isList(key) && !['format', 'schema', 'exportedAt', 'settings', 'pictures'].includes(key),
    );
    const found = stranger === undefined ? misfit(headSchema, head) : { path: short(stranger), says: 'is no part of a logbook' };
    if (found) throw this.unfit(found);
    return {
      format: 'inkpath-logbook',
      schema: head.schema,
      exportedAt: head.exportedAt,
      ...(head.settings !== undefined && { settings: head.settings }),
      ...lists,
      ...(Object.keys(this.pictures).length > 0 && { pictures: this.pictures }),
    } as unknown as Logbook;
  }

  /** The head of the file with some lists in it, raised to the present schema. */
  private migrated(lists: Record<string, unknown[]>): Record<string, unknown> {
    return migrate({ ...this.head, ...lists }, this.name);
  }

  private take(key: ListName, text: string): void {
    const items = this.lists.get(key) ?? [];
    this.lists.set(key, items);
    const place = `${key}[${this.counts.get(key) ?? 0}]`;
    const raised = this.migrated({ [key]: [parseJson(text, this.name)] })[key];
    const item: unknown = Array.isArray(raised) ? raised[0] : undefined;
    const schema = LISTS[key];
    const found = prefixed(place, schema ? misfit(schema, item) : runMisfit(item));
    if (found) throw this.unfit(found);
    const kept = schema ? item : this.keep(this.run(item as StoredRun));
    if (kept !== undefined) items.push(kept);
    this.counts.set(key, (this.counts.get(key) ?? 0) + 1);
  }

  private run(run: StoredRun): StoredRun {
    const { id } = run.header;
    if (this.runs.has(id)) throw new ImportError(`${this.name} holds run ${id} twice, and nothing was imported. Export it again.`);
    this.runs.add(id);
    const { samples, logs } = run;
    return {
      ...run,
      ...(samples && { samples: typedSamples(samples) }),
      ...(logs && { logs: Object.fromEntries(Object.entries(logs).map(([log, columns]) => [log, typedSamples(columns)])) }),
    };
  }

  private takePicture(place: string, id: string, address: unknown): void {
    const found = misfit(idField(), id);
    if (found) throw this.unfit({ path: place, says: found.says });
    if (typeof address !== 'string' || !isPicture(address)) throw this.unfit({ path: place, says: 'is not a picture' });
    this.pictures[id] = address;
  }

  private unfit({ path, says }: Misfit): ImportError {
    const place = path ? `at ${path}: it ` : '';
    return new ImportError(
      `${this.name} does not fit ${place}${says}. It was changed or cut off after it was exported, and nothing was imported: export it again.`,
    );
  }
}

/** Whether a data address holds a picture that a browser can show, in base64 as RFC 4648 has it. */
function isPicture(address: string): boolean {
  const comma = address.indexOf(',');
  const body = address.slice(comma + 1);
  const end = body.endsWith('==') ? 2 : body.endsWith('=') ? 1 : 0;
  return (
    PICTURE.test(address.slice(0, comma)) &&
    body.length > 0 &&
    body.length % 4 === 0 &&
    !/[^A-Za-z0-9+/]/.test(body.slice(0, body.length - end))
  );
}

/**
 * Reads a logbook whose text is at hand.
 *
 * @param name of the file, for errors
 * @throws {ImportError} naming the place in the file and the way out
 */
export function readLogbook(text: string, name: string): Logbook {
  const reader = new LogbookReader(name);
  reader.push(text);
  return reader.end();
}
