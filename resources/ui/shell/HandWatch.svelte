<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api } from '../api/jobs';
    import { watching } from '../api/watching';
    import { bell } from './bell.svelte';
    import { calls } from './calls.svelte';

    // told in Settings; asked once, and again when it was changed there
    const chosen = createQuery(() => ({ queryKey: ['watching'], queryFn: watching.show, staleTime: 300_000 }));
    $effect(() => {
        bell.on = chosen.data?.chosen.inBrowser === true;
    });
    const bench = createQuery(() => ({
        queryKey: ['bench'],
        queryFn: api.bench,
        enabled: calls.on || bell.on,
        refetchInterval: 3000,
        refetchIntervalInBackground: true,
    }));
    $effect(() => {
        if (bench.data !== undefined) calls.heard(bench.data.hands);
    });
    // since when each has been wanted, as far as this page knows; nothing is drawn from it
    let seen: Record<string, number> = {};
    $effect(() => {
        if (!bell.on || bench.data === undefined) return;
        const wait = (chosen.data?.chosen.handMinutes ?? 10) * 60_000;
        const wanted = bench.data.open
            .filter((job) => job.needsHand)
            .map((job) => ({
                key: `${job.id} ${job.now.what}`,
                since: job.now.since,
                words: `Job ${job.id}, ${job.modelName ?? 'a device'}: ${job.now.what}`,
                page: `#/jobs/${job.id}/${job.stage}`,
            }));
        seen = Object.fromEntries(
            wanted.map((w) => [w.key, seen[w.key] ?? (w.since ? Date.parse(w.since) : Date.now())]),
        );
        bell.heard(wanted.filter((w) => Date.now() - (seen[w.key] ?? 0) >= wait));
    });
    // the title of each view is put behind the number of jobs that need a hand
    $effect(() => {
        const mark = () => {
            const bare = document.title.replace(/^\(\d+ need a hand\) /, '');
            const wanted = calls.on && calls.hands > 0 ? `(${calls.hands} need a hand) ${bare}` : bare;
            if (document.title !== wanted) document.title = wanted;
        };
        mark();
        const observer = new MutationObserver(mark);
        observer.observe(document.head, { subtree: true, childList: true, characterData: true });
        return () => observer.disconnect();
    });
</script>
