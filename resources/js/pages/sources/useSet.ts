import { api, read, type Schemas } from '@/api/client';
import { useFreshness } from '@/composables/useFreshness';
import { useSending } from '@/composables/useSending';
import { computed, reactive, ref } from 'vue';

/** A field while it is written; `was` is what it was called before. */
export type Field = Schemas['SourceField'] & { was: string | null };

export interface DraftSet {
    code: string;
    name: string;
    noun: string;
    unit: string;
    key: string;
    unitField: string | null;
    unitNames: Record<string, string>;
    coversFrom: string;
    coversTo: string;
    coversByLoads: boolean;
    mode: Schemas['SourcePage']['mode'];
    owners: number[];
    fields: Field[];
}

const blank = (): DraftSet => ({
    code: '',
    name: '',
    noun: '',
    unit: '',
    key: '',
    unitField: null,
    unitNames: {},
    coversFrom: '',
    coversTo: '',
    coversByLoads: true,
    mode: 'key',
    owners: [],
    fields: [],
});

/** A record set while it is made or changed: compared with what is kept, sent, and marked where it is refused. */
export function useSet() {
    const renew = useFreshness();
    const sending = useSending();
    const draft = reactive<DraftSet>(blank());
    const version = ref(0);
    const kept = ref(JSON.stringify(blank()));
    const changed = computed(() => JSON.stringify(draft) !== kept.value);

    function begin(set: DraftSet, of: number): void {
        Object.assign(draft, JSON.parse(JSON.stringify(set)) as DraftSet);
        kept.value = JSON.stringify(draft);
        version.value = of;
        sending.problem.value = null;
    }

    const fromPage = (page: Schemas['SourcePage']): void =>
        begin(
            {
                code: page.code,
                name: page.name,
                noun: page.noun,
                unit: page.unit,
                key: page.key,
                unitField: page.unitField,
                unitNames: { ...page.unitNames },
                coversFrom: page.coversFrom ?? '',
                coversTo: page.coversTo ?? '',
                coversByLoads: page.coversByLoads,
                mode: page.mode,
                owners: page.owners,
                fields: page.fields.map((field) => ({ ...field, was: field.name })),
            },
            page.version,
        );

    const body = (upload: string | null, file: string | null) => ({
        ...draft,
        coversFrom: draft.coversFrom === '' ? null : draft.coversFrom,
        coversTo: draft.coversTo === '' ? null : draft.coversTo,
        fields: draft.fields.map(({ name, was, type, expression, meaning, sensitive, column, form }) => ({
            name,
            was,
            type,
            expression: type === null ? expression : null,
            meaning,
            sensitive,
            column: column === null || column === '' ? name : column,
            form,
        })),
        upload,
        file,
        version: version.value,
    });

    async function make(upload: string | null, file: string | null): Promise<Schemas['SourcePage'] | null> {
        let page: Schemas['SourcePage'] | null = null;
        await sending.send(async () => {
            page = await read(api.POST('/api/record-sets', { body: body(upload, file) }));
            await renew();
        });
        return page;
    }

    async function change(): Promise<Schemas['SourcePage'] | null> {
        let page: Schemas['SourcePage'] | null = null;
        const code = (JSON.parse(kept.value) as DraftSet).code;
        await sending.send(async () => {
            page = await read(
                api.PUT('/api/record-sets/{recordSet}', {
                    params: { path: { recordSet: code } },
                    body: body(null, null),
                }),
            );
            fromPage(page);
            await renew();
        });
        return page;
    }

    return { ...sending, draft, changed, begin, blank, fromPage, make, change };
}
