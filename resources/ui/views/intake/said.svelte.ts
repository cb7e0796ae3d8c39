import { ApiProblem } from '../../api/client';
import { intake } from '../../api/intake';
import type { Identity, Job, Said } from '../../api/types';

type Fields = {
    serial: string;
    imei: string;
    modelName: string;
    carrierTied: '' | 'yes' | 'no';
    whereBought: string;
    version: string;
    build: string;
    goal: string;
};

const EMPTY: Fields = {
    serial: '',
    imei: '',
    modelName: '',
    carrierTied: '',
    whereBought: '',
    version: '',
    build: '',
    goal: '',
};
const PAUSE_MS = 350;

/** What is being said of a device, and which models it may be by that; the server is asked after each change. */
export class SaidDevice {
    fields = $state<Fields>({ ...EMPTY });
    #identity = $state<Identity | null>(null);
    #problem = $state<string | null>(null);
    #imeiFault = $state<string | null>(null);
    #asked = 0;
    #timer: ReturnType<typeof setTimeout> | undefined;

    constructor(said: Job['said'] = null) {
        if (said !== null) {
            this.fields = {
                ...EMPTY,
                serial: said.serial ?? '',
                imei: said.imei ?? '',
                modelName: said.modelName,
                carrierTied: said.carrierTied === null ? '' : said.carrierTied ? 'yes' : 'no',
                whereBought: said.whereBought ?? '',
                version: said.version,
                build: said.build === 'unknown' ? '' : said.build,
            };
            this.changed();
        }
    }

    get identity() {
        return this.#identity;
    }

    get problem() {
        return this.#problem;
    }

    /** What is wrong with the IMEI, which is said at its field. */
    get imeiFault() {
        return this.#imeiFault;
    }

    get said(): Said {
        const text = (t: string) => (t.trim() === '' ? null : t.trim());
        const f = this.fields;
        return {
            serial: text(f.serial),
            imei: text(f.imei),
            modelName: text(f.modelName),
            carrierTied: f.carrierTied === '' ? null : f.carrierTied === 'yes',
            whereBought: text(f.whereBought),
            version: text(f.version),
            build: text(f.build),
            goal: text(f.goal),
        };
    }

    changed(): void {
        clearTimeout(this.#timer);
        this.#timer = setTimeout(() => void this.#ask(), PAUSE_MS);
    }

    async #ask(): Promise<void> {
        const { imei, modelName, carrierTied, whereBought } = this.said;
        const turn = ++this.#asked;
        if (!imei && !modelName) {
            this.#identity = null;
            this.#problem = this.#imeiFault = null;
            return;
        }
        const answer = await intake.identify({ imei, modelName, carrierTied, whereBought }).catch((e: Error) => e);
        if (turn !== this.#asked) return;
        this.#identity = answer instanceof Error ? null : answer;
        const ofImei = answer instanceof ApiProblem && answer.problem?.errors?.[0]?.pointer === '/imei';
        this.#imeiFault = ofImei ? answer.message : null;
        this.#problem = ofImei ? null : answer instanceof Error ? answer.message : answer.conflict;
    }
}
