<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api } from '../api/jobs';
    import { calls } from './calls.svelte';

    const bench = createQuery(() => ({
        queryKey: ['bench'],
        queryFn: api.bench,
        enabled: calls.on,
        refetchInterval: 3000,
        refetchIntervalInBackground: true,
    }));
    $effect(() => {
        if (bench.data !== undefined) calls.heard(bench.data.hands);
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
