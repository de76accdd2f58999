<script setup lang="ts">
import { api, ofFile, read, type Schemas } from '@/api/client';
import FileDrop from '@/components/FileDrop.vue';
import SettingsTabs from '@/components/SettingsTabs.vue';
import { useFreshness } from '@/composables/useFreshness';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { useTitle } from '@vueuse/core';
import { computed, ref } from 'vue';

/** An organisation as one workbook: taken out empty or filled, and brought back with a preview. */
useTitle('One workbook · Kybernet');
const { load } = useSession();
const renew = useFreshness();
const { busy, send, said } = useSending();
const preview = ref<Schemas['BookPreview'] | null>(null);
const file = ref('');

const refused = computed(() => preview.value?.sheets.reduce((sum, sheet) => sum + sheet.refused, 0) ?? 0);
const changes = computed(() => preview.value?.sheets.reduce((sum, sheet) => sum + sheet.new + sheet.changed, 0) ?? 0);
const links = computed(() => preview.value?.sheets.flatMap((sheet) => sheet.links) ?? []);

async function look(chosen: File): Promise<void> {
    file.value = chosen.name;
    await send(async () => {
        preview.value = await read(api.POST('/api/book', ofFile(chosen)));
    });
}

async function apply(): Promise<void> {
    await send(async () => {
        preview.value = await read(
            api.POST('/api/book/{upload}', { params: { path: { upload: preview.value?.upload ?? '' } } }),
        );
        await Promise.all([load(), renew()]);
    });
}
</script>

<template>
    <SettingsTabs here="organisation" />
    <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div class="max-w-[46em]">
            <h1 class="text-[28px] leading-[1.15]">One workbook</h1>
            <p class="mt-[5px] text-[17px]" role="status">
                <template v-if="preview?.applied">{{ file }} is taken in.</template>
                <template v-else-if="preview"
                    >{{ file }}: {{ changes === 1 ? 'one thing' : `${changes} things` }} would change<b
                        v-if="refused > 0"
                        class="font-[650] text-red-text"
                        >, {{ refused }} {{ refused === 1 ? 'line is' : 'lines are' }} refused: nothing can be taken in
                        until they are corrected</b
                    >. Nothing is kept yet.</template
                >
                <template v-else
                    >Units, people, definitions, targets and figures, a sheet for each, in any order.</template
                >
            </p>
        </div>
        <p class="flex flex-wrap items-center gap-x-5 gap-y-2 text-[14px]">
            <a class="quiet-link" href="/api/book?empty=1" download>Empty, with explanations</a>
            <a class="quiet-link" href="/api/book" download>Filled with what is here</a>
            <template v-if="preview">
                <button type="button" class="button button-quiet" :disabled="busy" @click="preview = null">
                    Another file
                </button>
                <button
                    v-if="!preview.applied"
                    type="button"
                    class="button"
                    :disabled="busy || refused > 0 || changes === 0"
                    @click="apply"
                >
                    Take it in
                </button>
            </template>
        </p>
    </div>
    <p v-if="said" class="error mt-3 text-[14.5px]" role="alert">{{ said }}</p>
    <FileDrop
        v-if="preview === null"
        class="mt-4"
        :busy="busy"
        accept=".xlsx,.ods"
        hint="XLSX or ODS with the sheets of the empty workbook. What is left out stays as it is; nothing is taken away."
        @file="look"
    />
    <template v-else>
        <div
            v-if="links.length > 0"
            class="mt-4 border-l-[3px] border-brass bg-brass-tint px-4 py-3 text-[15px]"
            role="status"
        >
            <p>Hand these links over: each works once, for seven days, and they are shown only now.</p>
            <ul class="mt-2 font-mono text-[13px] break-all">
                <li v-for="link in links" :key="link">{{ link }}</li>
            </ul>
        </div>
        <table class="mt-4 w-full max-w-[820px] border-collapse text-left text-[15px]">
            <thead>
                <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                    <th scope="col">Sheet</th>
                    <th scope="col" class="text-right">new</th>
                    <th scope="col" class="text-right">changed</th>
                    <th scope="col" class="text-right">the same</th>
                    <th scope="col" class="text-right">refused</th>
                </tr>
            </thead>
            <tbody v-for="sheet in preview.sheets" :key="sheet.name">
                <tr class="border-t border-rule-soft [&>td]:py-[7px]">
                    <td class="font-semibold">{{ sheet.name }}</td>
                    <td class="text-right">{{ sheet.new }}</td>
                    <td class="text-right">{{ sheet.changed }}</td>
                    <td class="text-right text-ink-soft">{{ sheet.same }}</td>
                    <td class="text-right" :class="sheet.refused > 0 ? 'font-[650] text-red-text' : 'text-ink-soft'">
                        {{ sheet.refused }}
                    </td>
                </tr>
                <tr v-if="sheet.problems.length > 0">
                    <td colspan="5" class="pb-3">
                        <ul class="text-[13.5px] text-red-text">
                            <li v-for="problem in sheet.problems" :key="problem">{{ problem }}</li>
                        </ul>
                    </td>
                </tr>
            </tbody>
        </table>
    </template>
</template>
