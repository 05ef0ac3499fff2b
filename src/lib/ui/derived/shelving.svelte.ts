import { goto } from '$app/navigation';
import { z } from 'zod';
import type { Making } from '../../core/bench/origin';
import type { BenchState } from '../bench/bench.svelte';

const Made = z.object({ bench: z.int() });
const Problem = z.object({ detail: z.string() });

/** A list about to be put on the shelf, made of a bench. */
export class Shelving {
  name = $state('');
  /** Kept as it is today; otherwise it follows the bench. */
  frozen = $state(false);
  busy = $state(false);
  fault = $state('');

  constructor(
    readonly bench: BenchState,
    name: string,
  ) {
    this.name = name;
  }

  get ready(): boolean {
    return this.name.trim() !== '' && !this.busy;
  }

  /** Makes it and opens it; where that cannot be, says why, and nothing is lost. */
  async keep(make: Making): Promise<void> {
    if (!this.ready) return;
    this.busy = true;
    this.fault = '';
    await this.bench.saver.flush();
    const response = await fetch('/api/lists', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        name: this.name.trim(),
        bench: this.bench.facts.id,
        make,
        frozen: this.frozen,
      }),
    }).catch(() => null);
    this.busy = false;
    const reply: unknown = await response?.json().catch(() => null);
    const made = Made.safeParse(reply);
    const problem = Problem.safeParse(reply);
    if (response?.ok && made.success) await goto(`/benches/${made.data.bench}`);
    else
      this.fault = problem.success
        ? problem.data.detail
        : 'The list could not be made: the server did not answer. Try again.';
  }
}
