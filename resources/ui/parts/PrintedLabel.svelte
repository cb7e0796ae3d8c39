<script lang="ts">
    import { toString as qrCode } from 'qrcode';

    /** A label to print and stick on, with a code that leads here when it is scanned into any search field. */
    let { code, title, lines }: { code: string; title: string; lines: string[] } = $props();
    let drawn = $state('');
    $effect(() => {
        void qrCode(code, { type: 'svg', margin: 0, errorCorrectionLevel: 'M' }).then((svg) => (drawn = svg));
    });
</script>

<article
    class={[
        'flex w-[24rem] items-center gap-4 rounded-lg border border-edge bg-white p-4 text-black',
        'print:rounded-none print:border-0 print:p-0',
    ]}
    aria-label="Label of {code}"
    data-label={code}
>
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- the library's own drawing, with no text in it -->
    <div class="h-28 w-28 shrink-0" role="img" aria-label="Code: {code}">{@html drawn}</div>
    <div class="min-w-0">
        <p class="text-lg font-semibold">{title}</p>
        <p class="font-mono text-sm break-all">{code}</p>
        {#each lines as line (line)}<p class="text-sm">{line}</p>{/each}
    </div>
</article>
