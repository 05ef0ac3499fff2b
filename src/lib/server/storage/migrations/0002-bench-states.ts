import { sql, type Kysely } from 'kysely';

/** Earlier states of a bench, with the present one as the first of them. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('bench_states')
    .addColumn('bench_id', 'integer', (c) =>
      c.notNull().references('benches.id').onDelete('cascade'),
    )
    .addColumn('revision', 'integer', (c) => c.notNull())
    .addColumn('doc', 'text', (c) => c.notNull())
    .addColumn('saved_at', 'text', (c) => c.notNull())
    .addColumn('kept', 'integer', (c) => c.notNull().defaultTo(0))
    .addPrimaryKeyConstraint('bench_states_pk', ['bench_id', 'revision'])
    .execute();
  await sql`insert into bench_states (bench_id, revision, doc, saved_at, kept)
    select id, revision, doc, saved_at, 0 from benches`.execute(db);
}
