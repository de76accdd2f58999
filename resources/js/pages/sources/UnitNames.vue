<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import { useFreshness } from '@/composables/useFreshness';
import { useNumbers } from '@/composables/useNumbers';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';

/** Which names stand for which units: what is not known yet, with one step to say it, and what was said. */
const props = defineProps<{ page: Schemas['SourcePage'] }>();
const { units } = useSession();
const { atMost } = useNumbers();
const renew = useFreshness();
const { busy, said, send } = useSending();

async function name(text: string, unit: string): Promise<void> {
    await send(async () => {
        await read(
            api.PUT('/api/record-sets/{recordSet}/unit-names', {
                params: { path: { recordSet: props.page.code } },
                body: { names: { [text]: unit } },
            }),
        );
        await renew();
    });
}
</script>

<template>
    <p v-if="said" class="error pb-2" role="alert">{{ said }}</p>
    <section aria-labelledby="not-known">
        <h2 id="not-known" class="text-[19px]">Not known</h2>
        <p v-if="page.unknown.length === 0" class="mt-1 text-ink-soft">Every record names a unit.</p>
        <p v-else class="mt-1 max-w-[46em] text-[14.5px] text-ink-soft">
            What stands in <b class="font-semibold">{{ page.unitField }}</b> and is no unit, by code or by another name.
            These {{ page.noun }} count nowhere.
        </p>
        <ul class="mt-2 max-w-[640px]">
            <li
                v-for="unknown in page.unknown"
                :key="unknown.name ?? ''"
                class="flex flex-wrap items-center gap-3 border-t border-rule-soft py-[6px]"
            >
                <b v-if="unknown.name !== null" class="font-semibold">{{ unknown.name }}</b>
                <i v-else class="text-ink-soft">nothing stands there</i>
                <span class="text-[14px] text-ink-faint">{{ atMost(unknown.records, 0) }} {{ page.noun }}</span>
                <select
                    v-if="unknown.name !== null && page.changes"
                    class="field ml-auto"
                    :disabled="busy"
                    :aria-label="`The unit that ${unknown.name} is`"
                    @change="name(unknown.name, ($event.target as HTMLSelectElement).value)"
                >
                    <option value="">is …</option>
                    <option v-for="[code, unit] in units" :key="code" :value="code">{{ unit.name }}</option>
                </select>
            </li>
        </ul>
    </section>
    <section v-if="Object.keys(page.unitNames).length > 0" class="mt-6" aria-labelledby="other-names">
        <h2 id="other-names" class="text-[19px]">Other names</h2>
        <ul class="mt-2 max-w-[640px]">
            <li
                v-for="(unit, text) in page.unitNames"
                :key="text"
                class="flex items-center gap-3 border-t border-rule-soft py-[6px]"
            >
                <b class="font-semibold">{{ text }}</b> is {{ units.get(unit)?.name ?? unit }}
                <button
                    v-if="page.changes"
                    type="button"
                    class="quiet-link ml-auto text-[14px]"
                    :disabled="busy"
                    @click="name(String(text), '')"
                >
                    Take it away
                </button>
            </li>
        </ul>
    </section>
</template>
