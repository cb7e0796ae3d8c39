<script lang="ts">
    import type { Plan } from '../../api/types';
    import { dayAndClock, version } from '../../parts/format';

    let { rejected }: { rejected: Plan['rejected'] } = $props();

    const QUESTIONS: Record<string, string> = {
        'carrier-tied': 'whether it is tied to a carrier',
        'where-bought': 'where it was bought',
        imei: 'its IMEI',
        'plug-in': 'plugging it in',
    };

    type Reason = Plan['rejected'][number]['reasons'][number];
    function words(r: Reason): string {
        switch (r.code) {
            case 'window-closed':
                return r.since === undefined
                    ? 'was never signed for this model'
                    : `not signed since ${dayAndClock(r.since)}`;
            case 'window-not-open-yet':
                return `signed only from ${r.from === undefined ? 'later' : dayAndClock(r.from)}`;
            case 'wrong-model':
                return 'has no package for this hardware id';
            case 'model-unresolved':
                return `the exact variant is not known yet (${(r.hardwareIds ?? []).join(', ')} fit); ${QUESTIONS[r.question ?? 'plug-in']} settles it`;
            case 'almanac-stale':
                return 'the almanac is too old to say';
            case 'same-build':
                return 'is what is installed';
            case 'rollback-floor':
                return 'is below the device’s rollback counter';
            case 'radio-mismatch':
                return 'its radio level is below what the device needs';
            case 'host-agent-old':
                return `needs host agent ${r.minimum ?? ''}`;
            case 'in-place-only':
                return 'is signed for in-place moves only';
            case 'not-newer':
                return 'in place it could only be an update, and it is not newer';
            case 'not-accepted-in-place':
                return 'it takes no in-place update from what is installed';
            case 'major-step-in-place':
                return 'a step-down in place never crosses a major version';
            case 'not-accepted-step-down':
                return 'it takes no in-place step-down from what is installed';
        }
    }
</script>

<h3 class="mt-3 mb-1 text-sm font-semibold">Other builds of this goal, and why not</h3>
<ul class="text-sm">
    {#each rejected as r (r.build)}<li class="border-t border-edge py-1">
            <span class="font-semibold">{version(r.version)}</span> <span class="code">{r.build}</span>: {#each r.reasons as reason, i (reason.code)}{i >
                0
                    ? '; '
                    : ''}{words(reason)} <span class="code">{reason.code}</span>{/each}
        </li>{/each}
</ul>
