<script lang="ts">
    import { Check, Copy } from '@lucide/svelte';

    /** A serial, build or digest that can be copied at a press. */
    let { text, what, short = false }: { text: string; what: string; short?: boolean } = $props();
    const SHORT = 12;
    let done = $state(false);

    async function copy(event: MouseEvent) {
        event.preventDefault();
        event.stopPropagation();
        await navigator.clipboard?.writeText(text).catch(() => fallback());
        if (navigator.clipboard === undefined) fallback();
        done = true;
        setTimeout(() => (done = false), 1500);
    }

    /** Where the browser lends its clipboard to encrypted pages only. */
    function fallback() {
        const field = Object.assign(document.createElement('textarea'), { value: text });
        document.body.append(field);
        field.select();
        document.execCommand('copy');
        field.remove();
    }
</script>

<span class="inline-flex max-w-full items-center gap-1 align-baseline"
    ><span class="min-w-0 font-mono break-all" title={short ? text : undefined}
        >{short && text.length > SHORT ? `${text.slice(0, SHORT)}…` : text}</span
    ><button
        type="button"
        class="inline-flex min-h-6 min-w-6 items-center justify-center rounded text-quiet hover:text-ink print:hidden"
        aria-label="Copy {what}"
        title="Copy {what}"
        onclick={copy}
        >{#if done}<Check size="0.95em" aria-hidden="true" />{:else}<Copy
                size="0.95em"
                aria-hidden="true"
            />{/if}</button
    ><span class="sr-only" role="status">{done ? `${what} copied` : ''}</span></span
>
