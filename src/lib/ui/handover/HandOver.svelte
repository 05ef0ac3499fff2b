<script lang="ts">
  import { askOf } from '../../core/bench/askOf';
  import type { Bench } from '../../core/bench/document';
  import { FORMS, OUT_FORMS, type OutForm } from '../../core/write/forms';
  import { counted } from '../../core/table/format';
  import type { BenchState } from '../bench/bench.svelte';
  import { Stopped } from '../bench/errand.svelte';
  import OneOf from '../fields/OneOf.svelte';
  import Pop from '../shell/Pop.svelte';
  import DialectFields from './DialectFields.svelte';
  import { dialectChosen, formChosen, recordForm, rememberDialect, rememberForm } from './form';
  import { copyTable, fileNameFor, saveBlob } from './clipboard';
  import type { ToWriter } from '../../worker/writeMessages';

  /** A file being written: what ends it, and who is told how far it is. */
  interface Writing {
    readonly signal: AbortSignal;
    readonly told: (share: number) => void;
  }
  let { bench }: { bench: BenchState } = $props();
  let full = $state(false);
  let form = $state<OutForm>(formChosen());
  let dialect = $state.raw(dialectChosen());
  let working = $state(false);
  let pop = $state<Pop>();

  const guardedWords = (n: number): string =>
    n
      ? ` ${counted(n, 'text cell')} that would start a formula ${n === 1 ? 'was' : 'were'} given an apostrophe in front.`
      : '';

  /** @param what it is, while it is done @param work what came of it, in words */
  async function doing(what: string, work: (writing: Writing) => Promise<string>): Promise<void> {
    working = true;
    try {
      bench.notice = await bench.errand.run(what, (signal, told) => work({ signal, told }));
      pop?.close();
    } catch (error) {
      if (error instanceof Stopped) bench.notice = 'Stopped. Nothing was handed over.';
      else bench.fault = error instanceof Error ? error.message : String(error);
    } finally {
      working = false;
    }
  }

  export const copyShown = (): Promise<void> =>
    doing('Copying', async () => {
      const { text, html, rows, guarded } = await bench.askNow('copy', {
        tally: bench.shown.id,
        full,
      });
      await copyTable(text, html);
      return `Copied ${counted(rows, 'line')} ${full ? 'with full values' : 'as shown'}.${guardedWords(guarded)}`;
    });

  const forms = OUT_FORMS.map((name) => [name, FORMS[name].name] as const);
  const ofRecords = $derived(recordForm(form));
  /** Tallies that stand in the report. */
  const reported = $derived(bench.doc.tray.filter(({ apart }) => !apart));

  function choose(next: OutForm): void {
    form = next;
    rememberForm(next);
  }

  export const saveShown = (): Promise<void> => {
    const name = bench.shown.name ?? bench.shown.tally.kind;
    return form === 'csv' ? save('shown', name) : saveTallies([bench.shown.id], name);
  };
  export const saveRecords = (): Promise<void> =>
    ofRecords === 'csv' ? save('records', 'records') : saveTyped();
  const saveReport = (): Promise<void> =>
    saveTallies(
      reported.map(({ id }) => id),
      'report',
    );

  const fileName = (name: string): string =>
    fileNameFor(bench.facts.listName, fileWord(name)).replace(/csv$/, form);

  /** Writes a file off this page's thread, and hands it to the browser. */
  async function saveWritten(
    message: ToWriter,
    name: string,
    { signal, told }: Writing,
  ): Promise<void> {
    const { written } = await import('../../worker/writeClient');
    const bytes = await written(message, signal, told);
    saveBlob(fileName(name), new Blob([bytes.slice()], { type: FORMS[form].media }));
  }

  const saveTallies = (tallies: string[], name: string): Promise<void> =>
    doing('Writing the file', async (writing) => {
      const { parts } = await bench.askNow('asked', { tallies });
      await saveWritten({ kind: 'result', parts, form, dialect }, name, writing);
      return `Saved ${tallies.length === 1 ? 'the tally' : `${tallies.length} tallies`} as ${fileName(name)}, with full values.`;
    });

  const saveTyped = (): Promise<void> =>
    doing('Writing the file', async (writing) => {
      if (!ofRecords) throw new Error(`${FORMS[form].name} is no form for records.`);
      const { records, parts } = await bench.askNow('countedRecords', { tally: bench.shown.id });
      const { listName: name, readAt } = bench.facts;
      const notes = [`${name}, read ${readAt}: ${counted(records, 'record')} counted`];
      await saveWritten(
        { kind: 'records', name, notes, records, parts, form: ofRecords, dialect },
        'records',
        writing,
      );
      return `Saved ${counted(records, 'record')} as ${fileName('records')}.`;
    });

  /** The bench as an ask: what the command line answers with the same figures. */
  export async function saveAsk(): Promise<void> {
    const text = JSON.stringify(askOf($state.snapshot(bench.doc) as Bench), null, 2);
    const file = fileNameFor(bench.facts.listName, fileWord(bench.facts.name));
    saveBlob(file.replace(/\.csv$/, '.ask.json'), new Blob([text], { type: 'application/json' }));
    bench.notice = 'The bench was saved as a question file.';
    pop?.close();
  }

  /** A name that a file can have. */
  const fileWord = (name: string): string =>
    name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-+|-+$/g, '') || 'tally';

  const save = (what: 'shown' | 'records', name: string): Promise<void> =>
    doing('Writing the file', async (writing) => {
      const { text, rows, guarded } = await bench.askNow('file', {
        tally: bench.shown.id,
        what,
        full,
        dialect,
      });
      await saveWritten({ kind: 'text', text, encoding: dialect.encoding }, name, writing);
      return `Saved ${counted(rows, what === 'shown' ? 'line' : 'record')} as a file.${guardedWords(guarded)}`;
    });
</script>

<Pop bind:this={pop} class="bar-button strong" width={330} title="Copy or save what is shown">
  {#snippet label()}Hand over{/snippet}
  <div class="list">
    <label class="form"
      >Save files as
      <OneOf value={form} options={forms} test="out-form" onchange={choose} /></label
    >
    {#if form === 'parquet'}<p class="soft">
        Parquet has no place for units and for the text of unread cells: those are blank in it.
      </p>{/if}
    {#if form === 'csv'}
      <DialectFields
        {dialect}
        onchange={(next) => {
          dialect = next;
          rememberDialect(next);
        }}
      />
    {/if}
    <fieldset>
      <legend class="caps">Values{form === 'csv' ? '' : ', when copied'}</legend>
      <label
        ><input type="radio" name="values" checked={!full} onchange={() => (full = false)} /> as shown</label
      >
      <label
        ><input type="radio" name="values" checked={full} onchange={() => (full = true)} /> full values,
        without marks or rounding</label
      >
    </fieldset>
    <p class="caps">
      {bench.shown.tally.kind === 'ledger'
        ? form === 'csv'
          ? 'The ledger, at the level shown'
          : 'The ledger; a file has all its levels'
        : 'This tally, with its notes'}
    </p>
    <div class="acts">
      <button
        type="button"
        class="plain-button"
        data-first
        disabled={working}
        onclick={copyShown}
        data-test="copy">Copy</button
      >
      <button
        type="button"
        class="plain-button"
        disabled={working}
        onclick={saveShown}
        data-test="save-shown">Save as a file</button
      >
    </div>
    <p class="caps">The counted records</p>
    <button
      type="button"
      class="plain-button"
      disabled={working || !ofRecords}
      onclick={saveRecords}
      data-test="save-records">Save as a file</button
    >
    {#if !ofRecords}<p class="soft">
        Records are saved as CSV, JSON, a workbook, Arrow or Parquet.
      </p>{/if}
    <p class="caps">The tallies of the report, {reported.length}</p>
    <button
      type="button"
      class="plain-button"
      disabled={working || reported.length === 0 || (FORMS[form].oneTable && reported.length > 1)}
      onclick={saveReport}
      data-test="save-report">Save as a file</button
    >
    {#if FORMS[form].oneTable && reported.length > 1}<p class="soft">
        This form holds one table: save the tallies one at a time.
      </p>{/if}
    <p class="caps">The whole bench</p>
    <button
      type="button"
      class="plain-button"
      disabled={working}
      onclick={saveAsk}
      data-test="save-ask">Save as a question file</button
    >
    <p class="soft">
      A question file asks for these very figures: on the command line, or as a bench of another
      list.
    </p>
    <p class="soft">
      Folded records and records set aside are not handed over. Group labels are plain text in
      columns of their own.
    </p>
  </div>
</Pop>

<style>
  .list {
    display: grid;
    gap: 7px;
    justify-items: start;
  }
  .form {
    display: grid;
    width: 100%;
    gap: 2px;
  }
  .acts {
    display: flex;
    gap: 8px;
  }
  fieldset {
    border: 0;
    padding: 0;
    margin: 0;
    display: grid;
    gap: 3px;
  }
  label {
    display: flex;
    gap: 6px;
  }
  p {
    margin: 4px 0 0;
  }
  .soft {
    color: var(--ink-soft);
    font-size: 12px;
  }
</style>
