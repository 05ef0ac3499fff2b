<script lang="ts">
  import { z } from 'zod';
  import { askOf } from '../../core/bench/askOf';
  import type { Bench } from '../../core/bench/document';
  import type { Dialect, Values } from '../../core/write/dialect';
  import { FORMS, OUT_FORMS, valuesOf, type OutForm } from '../../core/write/forms';
  import { counted } from '../../core/table/format';
  import type { BenchState } from '../bench/bench.svelte';
  import { Stopped } from '../bench/errand.svelte';
  import OneOf from '../fields/OneOf.svelte';
  import Pop from '../components/Pop.svelte';
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
  let form = $state<OutForm>(formChosen());
  let dialect = $state.raw(dialectChosen());
  let working = $state(false);
  let pop = $state<Pop>();

  const valueWords = (values: Values): string =>
    values === 'full' ? 'with full values' : 'as shown';

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
      const { values } = dialect;
      const { text, html, rows, guarded } = await bench.askNow('copy', {
        tally: bench.shown.id,
        values,
      });
      await copyTable(text, html);
      return `Copied ${counted(rows, 'line')} ${valueWords(values)}.${guardedWords(guarded)}`;
    });

  const forms = OUT_FORMS.map((name) => [name, FORMS[name].name] as const);
  const ofRecords = $derived(recordForm(form));
  /** Tallies that stand in the report. */
  const reported = $derived(bench.doc.tray.filter(({ apart }) => !apart));

  function chooseDialect(next: Dialect): void {
    dialect = next;
    rememberDialect(next);
  }

  function choose(next: OutForm): void {
    form = next;
    rememberForm(next);
  }

  export const saveShown = (): Promise<void> =>
    doing('Writing the file', async (writing) => {
      const name = bench.shown.name ?? bench.shown.tally.kind;
      const values = valuesOf(form, dialect);
      const tallies = [bench.shown.id];
      const { parts } = await bench.askNow('asked', { tallies, values, report: false });
      const guarded = await saveWritten({ kind: 'result', parts, form, dialect }, name, writing);
      return `Saved the tally as ${fileName(name)}, ${valueWords(values)}.${guardedWords(guarded)}`;
    });

  /** Why the server did not make something. */
  async function reasonOf(answer: Response): Promise<string> {
    const problem = z.object({ detail: z.string() }).safeParse(await answer.json());
    return problem.data?.detail ?? 'The server did not make it. Try again.';
  }

  /** The report is written by the server alone, in every form: what it writes is what the page shows. */
  const saveReport = (): Promise<void> =>
    doing('Writing the report', async ({ signal }) => {
      await bench.saver.flush();
      const query = new URLSearchParams({ as: form, ...dialect });
      const answer = await fetch(`/api/benches/${bench.facts.id}/report?${query}`, { signal });
      if (!answer.ok) throw new Error(await reasonOf(answer));
      saveBlob(fileName('report'), await answer.blob());
      return `Saved ${counted(reported.length, 'tally', 'tallies')} as ${fileName('report')}.`;
    });

  const fileName = (name: string): string =>
    fileNameFor(bench.facts.listName, fileWord(name)).replace(/csv$/, form);

  /** Writes a file off this page's thread, and hands it to the browser. @returns how many texts were made harmless */
  async function saveWritten(
    message: ToWriter,
    name: string,
    { signal, told }: Writing,
  ): Promise<number> {
    const { written } = await import('../../worker/writeClient');
    const { bytes, guarded } = await written(message, signal, told);
    saveBlob(fileName(name), new Blob([bytes.slice()], { type: FORMS[form].media }));
    return guarded;
  }

  export const saveRecords = (): Promise<void> =>
    doing('Writing the file', async (writing) => {
      if (!ofRecords) throw new Error(`${FORMS[form].name} is no form for records.`);
      const { records, parts } = await bench.askNow('countedRecords', {});
      const { listName: name, readAt } = bench.facts;
      const notes = [`${name}, read ${readAt}: ${counted(records, 'record')} counted`];
      const formats = $state.snapshot(bench.doc.formats);
      const guarded = await saveWritten(
        { kind: 'records', name, notes, records, parts, formats, form: ofRecords, dialect },
        'records',
        writing,
      );
      return `Saved ${counted(records, 'record')} as ${fileName('records')}.${guardedWords(guarded)}`;
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
      <DialectFields {dialect} onchange={chooseDialect} />
    {/if}
    <fieldset>
      <legend class="caps">Values{form === 'csv' ? '' : ', when copied'}</legend>
      <label
        ><input
          type="radio"
          name="values"
          checked={dialect.values === 'shown'}
          onchange={() => chooseDialect({ ...dialect, values: 'shown' })}
        /> as shown</label
      >
      <label
        ><input
          type="radio"
          name="values"
          checked={dialect.values === 'full'}
          onchange={() => chooseDialect({ ...dialect, values: 'full' })}
          data-test="full-values"
        /> full values, without marks or rounding</label
      >
    </fieldset>
    <p class="caps">
      {bench.shown.tally.kind === 'ledger'
        ? 'The ledger, at the level shown'
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
      Records set aside are not handed over. As shown, a ledger has the lines that are unfolded;
      with full values, and in forms that keep numbers as numbers, every group of the levels shown.
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
