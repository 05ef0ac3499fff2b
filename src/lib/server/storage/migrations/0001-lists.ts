import type { Kysely } from 'kysely';

/** Lists, their readings in chunks, and benches. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await db.schema
    .createTable('lists')
    .addColumn('id', 'integer', (c) => c.primaryKey().autoIncrement())
    .addColumn('name', 'text', (c) => c.notNull())
    .addColumn('created_at', 'text', (c) => c.notNull())
    .addColumn('current_reading', 'integer')
    .execute();
  await db.schema
    .createTable('readings')
    .addColumn('id', 'integer', (c) => c.primaryKey().autoIncrement())
    .addColumn('list_id', 'integer', (c) => c.notNull().references('lists.id').onDelete('cascade'))
    .addColumn('number', 'integer', (c) => c.notNull())
    .addColumn('file_name', 'text', (c) => c.notNull())
    .addColumn('read_at', 'text', (c) => c.notNull())
    .addColumn('records', 'integer', (c) => c.notNull())
    .addColumn('recipe', 'text', (c) => c.notNull())
    .addColumn('doubts', 'text', (c) => c.notNull())
    .addUniqueConstraint('readings_number', ['list_id', 'number'])
    .execute();
  await db.schema
    .createTable('chunks')
    .addColumn('reading_id', 'integer', (c) =>
      c.notNull().references('readings.id').onDelete('cascade'),
    )
    .addColumn('n', 'integer', (c) => c.notNull())
    .addColumn('data', 'blob', (c) => c.notNull())
    .addPrimaryKeyConstraint('chunks_pk', ['reading_id', 'n'])
    .execute();
  await db.schema
    .createTable('benches')
    .addColumn('id', 'integer', (c) => c.primaryKey().autoIncrement())
    .addColumn('list_id', 'integer', (c) => c.notNull().references('lists.id').onDelete('cascade'))
    .addColumn('name', 'text', (c) => c.notNull())
    .addColumn('revision', 'integer', (c) => c.notNull())
    .addColumn('doc', 'text', (c) => c.notNull())
    .addColumn('saved_at', 'text', (c) => c.notNull())
    .execute();
  await db.schema.createIndex('benches_list').on('benches').column('list_id').execute();
}
