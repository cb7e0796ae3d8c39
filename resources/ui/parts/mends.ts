import type { TERM } from '../api/words';

type Way = { href: string; words: string };

const ALMANAC: Way = { href: '#/almanac', words: 'To the Almanac' };
const STORAGE: Way = { href: '#/settings?at=storage', words: 'Places and limits' };
const VENDORS: Way = { href: '#/settings?at=vendors', words: 'Vendors and keys' };
const BENCHES: Way = { href: '#/settings?at=benches', words: 'Benches and links' };
const SHELF: Way = { href: '#/shelf', words: 'To the Shelf' };

/** Where what stands in the way is mended, by its code; for what is mended on the page itself there is none. */
const WAYS: Record<string, Way> = {
    'almanac-fresh': ALMANAC,
    'almanac-stale': ALMANAC,
    'plan-changed': ALMANAC,
    'disk-space': STORAGE,
    'disk-full': STORAGE,
    'package-refused': STORAGE,
    'no-room': STORAGE,
    'no-such-package': ALMANAC,
    'window-closed': ALMANAC,
    'wrong-package': ALMANAC,
    'identity-conflict': { href: '#/take-in', words: 'To what was said' },
    'too-large': STORAGE,
    untrusted: VENDORS,
    'no-address': VENDORS,
    'other-vendor': VENDORS,
    'link-lost': BENCHES,
    'rested-on': { href: '#/', words: 'To the jobs' },
    'device-held': { href: '#/', words: 'To the jobs' },
    damaged: SHELF,
    'second-place': SHELF,
    bag: SHELF,
    'second-factor-wanted': { href: '#/settings?at=sign-in', words: 'Your sign-in' },
};

/** Of a job: what it needs now stands in its own bar, wherever else somebody pressed. */
const OF_JOB = [
    'not-yet',
    'not-any-more',
    'not-now',
    'job-ended',
    'erase-line-closed',
    'loss-not-accepted',
    'not-paired',
    'no-such-device',
];

export function wayOf(code: string | null | undefined): Way | null {
    if (!code) return null;
    const job = /^#\/jobs\/(\d+)\/\w/.exec(window.location.hash)?.[1];
    if (job !== undefined && OF_JOB.includes(code)) return { href: `#/jobs/${job}`, words: 'To what it needs now' };
    return WAYS[code] ?? null;
}

/** The term of the trade that a check is about. */
export const TERM_OF_CHECK: Record<string, keyof typeof TERM> = {
    paired: 'pairing',
    'model-resolved': 'hardware-id',
    'owner-lock-off': 'owner-lock',
    'lock-delay': 'lock-delay',
    'host-agent': 'host-agent',
    'backup-verified': 'verified',
    'sealed-copy': 'sealed',
    'second-place': 'second-place',
    'side-exports': 'side-export',
    'package-verified': 'package',
    'almanac-fresh': 'almanac',
    permit: 'signing-window',
    'beta-enrolment': 'beta-programme',
};
