<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { returns } from '../../api/returns';
    import { kindName } from '../../parts/format';
    import Term from '../../parts/Term.svelte';

    /** What became of returns lowered from one major to another, here. */
    let { osLine, base }: { osLine: string; base: { declaredVersion: string | null; majorsDown: number } } = $props();
    const to = $derived(Number(base.declaredVersion?.split('.')[0] ?? 0));
    const majors = $derived([to + base.majorsDown, to] as const);
    const found = createQuery(() => ({
        queryKey: ['evidence', osLine, ...majors],
        queryFn: () => returns.evidence(osLine, majors[0], majors[1]),
        staleTime: 30_000,
    }));
    const kinds = $derived(found.data?.kinds ?? []);
    // kinds of the same figures share a line, the least sure first
    const lines = $derived.by(() => {
        const by: Record<string, typeof kinds> = {};
        for (const k of kinds) (by[`${k.returned}/${k.of}`] ??= []).push(k);
        return Object.values(by).sort((a, b) => (a[0]?.low ?? 0) - (b[0]?.low ?? 0));
    });
    /** "works in 9 of 10": how often at least and at most, as far as the cases tell. */
    const tenths = (p: number | null) => Math.round((p ?? 0) * 10);
    const span = (k: { low: number | null; high: number | null }) =>
        tenths(k.low) === tenths(k.high)
            ? `works in about ${tenths(k.low)} of 10`
            : `works in ${tenths(k.low)} to ${tenths(k.high)} of 10`;
    const step = $derived(majors[0] === majors[1] ? `within ${majors[1]}` : `from ${majors[0]} to ${majors[1]}`);
    const most = $derived(Math.max(0, ...kinds.map((k) => k.of)));
</script>

{#if found.data}
    <div class="mt-3 border-t border-edge pt-2" data-evidence>
        <h3 class="text-sm font-semibold"><Term of="lowered">Lowered</Term> {step} here before</h3>
        {#if kinds.length === 0}<p class="text-sm text-quiet">
                Never yet: this shop has no case of its own. {base.majorsDown === 0
                    ? 'Within one major it usually works'
                    : base.majorsDown === 1
                      ? 'Down one major it usually works'
                      : 'Down more than one major it is unproven'}, and it is never certain.
            </p>
        {:else}
            <p class="text-sm text-quiet">
                {most === 1 ? 'Once' : `${most} times`}. How often it came back whole, as far as {most === 1
                    ? 'one case tells'
                    : `${most} cases tell`}:
            </p>
            <table class="mt-1 w-full text-sm">
                <tbody>
                    {#each lines as line (line[0]?.kind)}
                        {@const k = line[0]}
                        {#if k}<tr class="border-t border-edge">
                                <th scope="row" class="py-0.5 pr-3 text-left font-normal"
                                    >{line.length === kinds.length && line.length > 1
                                        ? `each of ${line.length} kinds`
                                        : line.map((l) => kindName(l.kind)).join(', ')}</th
                                ><td class="w-16 text-right">{k.returned} of {k.of}</td>
                                <td class="w-28 px-2" aria-hidden="true"
                                    ><span class="relative block h-2 rounded-full bg-sunken"
                                        ><span
                                            class="absolute h-2 rounded-full {k.returned < k.of
                                                ? 'bg-amber-mark'
                                                : 'bg-jade'}"
                                            style:left="{(k.low ?? 0) * 100}%"
                                            style:width="{Math.max(2, ((k.high ?? 1) - (k.low ?? 0)) * 100)}%"
                                        ></span></span
                                    ></td
                                >
                                <td class="w-48 text-right text-quiet">{span(k)}</td>
                            </tr>{/if}
                    {/each}
                </tbody>
            </table>
        {/if}
    </div>
{/if}
