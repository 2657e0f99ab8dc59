import { readFileSync } from 'node:fs';
import { DuckDBConnection } from '@duckdb/node-api';

/** The questions of docs/analysis.md, as they stand there: each with its heading. */
export function questionsIn(page: string): { title: string; sql: string }[] {
  const text = readFileSync(page, 'utf8');
  return [...text.matchAll(/^## (.+?)$[^]*?```sql\n([^]*?)```/gm)].map(([, title = '', sql = '']) => ({ title, sql }));
}

/** What a question came to, and how long it took, in milliseconds. */
export interface Answer {
  title: string;
  rows: Record<string, unknown>[];
  took: number;
}

/**
 * Asks DuckDB the questions of a page over a folder of reviewers.
 *
 * @param folder what stands as `reviewers` in the page
 */
export async function answersOf(page: string, folder: string): Promise<Answer[]> {
  const duck = await DuckDBConnection.create();
  try {
    const answers: Answer[] = [];
    for (const { title, sql } of questionsIn(page)) {
      const begin = performance.now();
      const found = await duck.runAndReadAll(sql.replaceAll(`'reviewers/`, `'${folder}/`));
      answers.push({ title, rows: found.getRowObjectsJS(), took: performance.now() - begin });
    }
    return answers;
  } finally {
    duck.closeSync();
  }
}
