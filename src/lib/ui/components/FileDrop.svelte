<script lang="ts">
  import type { Snippet } from 'svelte';
  import { asOneFile } from './asOneFile';
  import { FileUpload } from '@skeletonlabs/skeleton-svelte';

  interface Props {
    /** What is asked for, for screen readers. */
    name: string;
    /** What the button says. */
    label: string;
    onfile: (file: File) => void;
    /** Several at once are taken as one package. */
    many?: boolean;
    /** Endings and types that the browser's own dialog shows; whatever is dropped is taken. */
    accept?: string;
    /** What stands above the button. */
    children?: Snippet;
    test?: string;
  }
  let { name, label, onfile, many = false, accept, children, test }: Props = $props();
  const MOST = 500;

  async function take(files: readonly File[]): Promise<void> {
    const file = await asOneFile(files);
    if (file) onfile(file);
  }
</script>

<FileUpload
  acceptedFiles={[]}
  maxFiles={many ? MOST : 1}
  onFileAccept={({ files }) => void take(files)}
>
  <FileUpload.Dropzone disableClick>
    {#snippet element(attributes)}
      <div
        {...attributes}
        class="drop"
        data-test="drop"
        role="group"
        aria-label={name}
        tabindex="-1"
        onkeydown={undefined}
      >
        {@render children?.()}
        <FileUpload.Trigger>
          {#snippet element(attributes)}
            <button {...attributes} type="button" class="main-button">{label}</button>
          {/snippet}
        </FileUpload.Trigger>
        <FileUpload.HiddenInput>
          {#snippet element(attributes)}<input
              {...attributes}
              {accept}
              data-test={test}
            />{/snippet}
        </FileUpload.HiddenInput>
      </div>
    {/snippet}
  </FileUpload.Dropzone>
</FileUpload>

<style>
  .drop {
    border: 1.5px dashed var(--rule);
    border-radius: 10px;
    padding: 18px 20px;
    background: var(--panel);
    height: 100%;
    box-sizing: border-box;
  }
  .drop[data-dragging] {
    border-color: var(--tide);
    background: var(--tide-wash);
  }
</style>
