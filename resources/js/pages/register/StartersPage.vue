<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { counted } from '@/composables/useNumbers';
import { useFreshness } from '@/composables/useFreshness';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, ref } from 'vue';

/** Common measures to begin with: chosen ones become drafts in the register. */
useTitle('Begin with common measures · Kybernet');
type Starter = Schemas['Starter'];
const { units } = useSession();
const { unit: place, query } = useView();
const renew = useFreshness();
const { busy, send, said } = useSending();
const { data, error, isPending, refetch } = useQuery({
    queryKey: ['starters'],
    queryFn: () => read(api.GET('/api/starters')),
    staleTime: 0,
});
const words = ref('');
const chosen = ref(new Set<string>());
const where = ref(place.value.code);
const taken = ref<string[]>([]);

const byCode = computed(() => new Map((data.value ?? []).map((starter) => [starter.code, starter])));
/** With everything that they are worked out from. */
function withNeeds(code: string, found = new Set<string>()): Set<string> {
    byCode.value.get(code)?.needs.forEach((need) => withNeeds(need, found));
    return found.add(code);
}
const wanted = computed(() => {
    const all = new Set<string>();
    chosen.value.forEach((code) => withNeeds(code, all));
    return [...all].filter((code) => byCode.value.get(code)?.taken === false);
});
const besides = computed(() => wanted.value.filter((code) => !chosen.value.has(code)));

const groups = computed(() => {
    const sought = words.value.trim().toLowerCase();
    const fit = (data.value ?? []).filter(
        ({ code, name, purpose, function: about }) =>
            sought === '' || `${code} ${name} ${purpose} ${about}`.toLowerCase().includes(sought),
    );
    const found = new Map<string, Starter[]>();
    fit.forEach((starter) => found.set(starter.function, [...(found.get(starter.function) ?? []), starter]));
    return [...found];
});

function toggle(code: string): void {
    const next = new Set(chosen.value);
    if (!next.delete(code)) {
        next.add(code);
    }
    chosen.value = next;
}

const percent = (text: string | undefined): string => `${text ?? ''} %`;
/** Limits in a few words. */
function limits({ rule, polarity, measure }: Starter): string {
    if (rule === null) {
        return 'tracked, not judged';
    }
    const unit = measure === '' ? '' : ` ${measure}`;
    if (rule['measure'] === 'level') {
        return polarity === 'band'
            ? `on course from ${rule['low'] ?? ''} to ${rule['high'] ?? ''}${unit}`
            : `on course ${polarity === 'lower' ? 'up to' : 'from'} ${rule['green'] ?? ''}${unit}, drifting ${polarity === 'lower' ? 'up to' : 'from'} ${rule['amber'] ?? ''}`;
    }
    const against = rule['reference'] === 'prior-year' ? 'last year' : 'target';
    return `on course within ${percent(rule['green'])} of ${against}, drifting within ${percent(rule['amber'])}`;
}

async function take(): Promise<void> {
    const done = await send(async () => {
        taken.value = await read(api.POST('/api/starters', { body: { codes: [...chosen.value], unit: where.value } }));
    });
    if (done) {
        chosen.value = new Set();
        await Promise.all([refetch(), renew()]);
    }
}
</script>

<template>
    <h1 class="text-[28px] leading-[1.15]">Begin with common measures</h1>
    <p class="mt-[5px] max-w-[46em] text-[17px]">
        Choose what you want to steer by. Each becomes a draft in the register, with its questions open: who owns it,
        where its figures come from, which target.
    </p>
    <p
        v-if="taken.length > 0"
        class="mt-4 border-l-[3px] border-brass bg-brass-tint px-4 py-2.5 text-[15px]"
        role="status"
    >
        {{ taken.length === 1 ? 'One draft is' : `${counted(taken.length)} drafts are` }} in the
        <RouterLink class="quiet-link" :to="{ name: 'register', query: query() }">Register</RouterLink>; Delete takes
        one back while it has no figures.
    </p>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <template v-else-if="data">
        <label class="mt-4 block max-w-[320px]"
            ><span class="sr-only">Find a measure</span
            ><input
                v-model="words"
                type="search"
                class="field w-full"
                placeholder="Find by any word: margin, waiting, injury"
        /></label>
        <StateNote v-if="groups.length === 0" title="No measure fits">
            Another word may find it; or
            <RouterLink class="quiet-link" :to="{ name: 'define', query: query() }">define your own</RouterLink>.
        </StateNote>
        <section v-for="[about, starters] in groups" :key="about" class="mt-6" :aria-labelledby="`about-${about}`">
            <h2 :id="`about-${about}`" class="border-b border-rule pb-1 text-[20px]">{{ about }}</h2>
            <ul class="xl:columns-2 xl:gap-x-10">
                <li
                    v-for="starter in starters"
                    :key="starter.code"
                    class="break-inside-avoid border-b border-rule-soft py-2"
                >
                    <label class="flex items-start gap-3" :class="starter.taken ? 'text-ink-faint' : 'cursor-pointer'">
                        <input
                            type="checkbox"
                            class="mt-[5px] size-4 shrink-0 accent-brass"
                            :checked="chosen.has(starter.code)"
                            :disabled="starter.taken"
                            @change="toggle(starter.code)"
                        />
                        <span class="min-w-0">
                            <b class="font-semibold">{{ starter.name }}</b>{{ ' '
                            }}<span class="ml-1 text-[13px] text-ink-faint"
                                >{{ starter.code }}{{ starter.taken ? ', in the register already' : '' }}</span
                            >
                            <span class="block text-[14px] text-ink-soft">{{ starter.purpose }}</span>
                            <span class="block text-[13px] text-ink-faint"
                                ><template v-if="starter.formula !== ''"
                                    ><code class="text-[12.5px]">{{ starter.formula }}</code
                                    >; </template
                                >{{ limits(starter)
                                }}<b v-if="starter.practice" class="font-semibold"> (common practice)</b
                                ><template v-if="starter.publishedBy">. {{ starter.publishedBy }}</template></span
                            >
                        </span>
                    </label>
                </li>
            </ul>
        </section>
        <div
            class="sticky bottom-0 mt-6 flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-rule bg-paper py-3"
        >
            <label class="flex items-center gap-2 text-[14.5px]"
                >Measured in
                <select v-model="where" class="field w-[220px]">
                    <option v-for="unit in units.values()" :key="unit.code" :value="unit.code">{{ unit.name }}</option>
                </select></label
            >
            <button type="button" class="button" :disabled="busy || wanted.length === 0" @click="take">
                {{
                    wanted.length === 0 ? 'Take into the register' : `Take ${counted(wanted.length)} into the register`
                }}
            </button>
            <span v-if="said" class="error" role="alert">{{ said }}</span>
            <span v-else-if="besides.length > 0" class="text-[13.5px] text-ink-soft"
                >With {{ besides.map((code) => byCode.get(code)?.name).join(', ') }}: they are worked out from
                {{ besides.length === 1 ? 'it' : 'them' }}.</span
            >
        </div>
    </template>
</template>
