import { BadAsk, ExpressionError, IntakeError } from '$lib/core/errors';
import { Command, CommanderError } from 'commander';
import { OUT_FORMS } from '$lib/core/write/forms';
import { RECORD_FORMS } from '$lib/core/write/tableFile';
import { writingText } from './dialect';
import { check } from './check';
import { Failed } from './exit';
import { note } from './output';
import { refuseOverwriting } from './overwriting';
import { reckon } from './reckon';
import { records } from './records';
import { report } from './report';
import { schema } from './schema';
import { verify } from './verify';

const program = new Command('tally')
  .description(
    'Figures that can be defended, from a file of records. FILE is - for standard input.',
  )
  .exitOverride()
  .configureHelp({ sortSubcommands: false });

/** An option that may be given often. */
const gathered = (given: string, before: readonly string[]): readonly string[] => [
  ...before,
  given,
];

/** A command that reads a list, with the options that say how. */
const reading = (name: string, description: string): Command =>
  program
    .command(name)
    .description(description)
    .requiredOption(
      '--data <FILE>',
      'delimited text, a workbook, JSON, Arrow or Parquet, packed or not; a SQLite database; connection:NAME',
    )
    .option(
      '--sheet <NAME>',
      'the sheet of a workbook, * for all; the one with most cells unless given',
    )
    .option('--table <NAME>', 'the table or view of a database; its only one unless given')
    .option('--query <SQL>', 'what a SELECT of a database comes to')
    .option('--member <NAME>', 'the file of a zip package; the first unless given')
    .option(
      '--block <N>',
      'which of several tables on a sheet; the largest unless given, 0 for all',
    )
    .option(
      '--head <NAME=WHAT>',
      'of several files: what a column is that not all have; own, out, or same:OTHER (again for another)',
      gathered,
      [],
    )
    .option('--recipe <FILE>', 'how the file is read; found by itself unless given')
    .option(
      '--type <NAME=TYPE>',
      'reads a column as text, number, date, datetime, time or yesno; may be given often',
      gathered,
      [],
    )
    .option(
      '--missing <refuse|blank>',
      "what of the recipe's columns that the file has not",
      'refuse',
    );

/** The same for one that reads further files besides. */
const readingAll = (name: string, description: string): Command =>
  reading(name, description)
    .option(
      '--add <FILE>',
      'a further file, its records behind those of --data without those that are there already; may be given often',
      gathered,
      [],
    )
    .option(
      '--key <COLUMN>',
      'what tells a record of --add: whole records unless given; may be given often',
      gathered,
      [],
    );

writingText(readingAll('reckon', 'answer an ask about a file'))
  .option('--ask <FILE>', 'the ask, a JSON document (docs/ask.md)')
  .option('--wish <WORDS>', 'in place of an ask: what is asked, as one would say it')
  .option('--explain', 'of a wish: write the ask that it means')
  .option('--out <FILE>', 'where the results go; standard output unless given')
  .option(
    '--in-parts <WHEN>',
    'yes: delimited text is read in stretches, so that it may be larger than the memory, and a database groups its own records; no: all is read; unless given, a large file is read in stretches where the ask allows it',
  )
  .option('--leave-out <PARTS>', 'what the answer goes without: where, marks, or where,marks')
  .option('--format <FORM>', `${OUT_FORMS.join(', ')}; by the ending of --out, or json`)
  .action(reckon);

writingText(
  readingAll(
    'report <BENCH>',
    'make the report of a bench (saved from its page, or an ask) over a file',
  ),
)
  .option(
    '--out <FILE>',
    'where it goes: .html, .json, .csv, .xlsx, .ods or .md; standard output unless given',
  )
  .option('--format <FORM>', 'html, json, csv, xlsx, ods or md; by the ending of --out, or html')
  .option(
    '--against <FILE>',
    'the file before this one: records the bench names are found again, and what moved is told',
  )
  .option('--name <NAME>', 'what the list is called; the file’s name unless given')
  .option(
    '--list <NAME=FILE>',
    'another list that the bench looks at; may be given often',
    gathered,
    [],
  )
  .action(report);

writingText(
  readingAll('records', 'write the records that a bench or an ask counts, corrected and prepared'),
)
  .option('--ask <FILE>', 'the ask or the bench; all records unless given')
  .option('--out <FILE>', 'where they go; standard output unless given')
  .option('--format <FORM>', `${RECORD_FORMS.join(', ')}; by the ending of --out, or csv`)
  .option('--list <NAME=FILE>', 'another list that it looks at; may be given often', gathered, [])
  .action(records);

reading('check', 'write how a file is read, and everything doubtful in it')
  .option('--out <FILE>', 'where the report goes; standard output unless given')
  .action(check);

program
  .command('verify <RECORD>')
  .description('reckon a figure again from its file, by the record saved behind it')
  .requiredOption('--data <FILE>', 'the file that its list was read from')
  .option('--list <NAME=FILE>', 'another list that it looks at; may be given often', gathered, [])
  .action(verify);

program
  .command('schema')
  .description('write the JSON Schema of a document')
  .argument('[which]', 'ask, result or recipe', 'ask')
  .option('--out <FILE>', 'where it goes; standard output unless given')
  .action(schema);

program.addHelpText(
  'after',
  '\nExit codes: 0 done, 1 the run failed, 2 the ask or the call cannot be used, 3 the report was made and\na known total does not agree, or a table does not foot.',
);

/** What a failure is told as, and its exit code; never a stack trace. */
function told(error: unknown): { code: number; text: string } {
  if (error instanceof CommanderError) return { code: error.exitCode === 0 ? 0 : 2, text: '' };
  if (error instanceof BadAsk) return { code: 2, text: error.message };
  if (error instanceof Failed) return { code: error.code, text: error.message };
  if (error instanceof IntakeError || error instanceof ExpressionError)
    return { code: 1, text: error.message };
  const words = error instanceof Error ? error.message : String(error);
  return { code: 1, text: `The run failed: ${words}` };
}

program.hook('preAction', (_, command) => {
  const { out, ...options }: { out?: string } & Record<string, unknown> = command.opts();
  refuseOverwriting(out, [...command.args, ...Object.values(options)]);
});

try {
  await program.parseAsync();
} catch (error) {
  const { code, text } = told(error);
  if (text) note(text);
  process.exitCode = code;
}
