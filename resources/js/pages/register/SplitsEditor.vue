<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { computed } from 'vue';
import { fieldWords, typeOf, type SourceField } from './counting';
import FormLine from '@/components/FormLine.vue';
import SourceChoice from './SourceChoice.vue';

/** By what a counted KPI is split: a field or bands of a number, and the shares that parts should have. */
type Split = Schemas['Split'];
const props = defineProps<{
    fields: readonly SourceField[];
    error: (pointer: string, within?: boolean) => string | undefined;
}>();
const splits = defineModel<Split[]>({ required: true });

const change = (at: number, part: Partial<Split>): void => {
    splits.value = splits.value.map((each, index) => (index === at ? { ...each, ...part } : each));
};
function add(): void {
    const used = new Set(splits.value.map(({ of }) => of));
    const field = props.fields.find(({ type, name }) => type === 'text' && !used.has(name));
    const of = field?.name ?? '';
    splits.value = [
        ...splits.value,
        {
            code: nextCode(of),
            name: field === undefined ? '' : `by ${fieldWords(field)}`,
            of,
            bands: [],
            shares: {},
            green: null,
            amber: null,
        },
    ];
}
function nextCode(of: string): string {
    const plain =
        of
            .toUpperCase()
            .replace(/[^A-Z0-9]+/g, '-')
            .replace(/^[^A-Z]+/, '') || 'SPLIT';
    const taken = new Set(splits.value.map(({ code }) => code));
    let code = plain;
    for (let more = 2; taken.has(code); more++) {
        code = `${plain}-${more}`;
    }
    return code;
}
const isNumber = (split: Split): boolean => split.of !== '' && typeOf(split.of, props.fields) === 'number';
const shares = (split: Split): [string, string][] => Object.entries(split.shares ?? {});
const writeShares = (at: number, all: [string, string][]): void => {
    const now = Object.fromEntries(all);
    const has = all.length > 0;
    change(at, {
        shares: now,
        green: has ? (splits.value[at]?.green ?? '5') : null,
        amber: has ? (splits.value[at]?.amber ?? '10') : null,
    });
};
const message = (at: number): string | undefined => props.error(`/splits/${at}`) ?? props.error(`/splits/${at}`, true);
const wanted = computed(() =>
    splits.value.map((split) =>
        shares(split).reduce((sum, [, share]) => sum + (Number(share.replace(',', '.')) || 0), 0),
    ),
);
</script>

<template>
    <FormLine label="In parts">
        <div v-for="(split, at) in splits" :key="at" class="mb-3 border-l-2 border-rule pl-3">
            <div class="flex flex-wrap items-center gap-1.5">
                <input
                    class="field w-[150px]"
                    maxlength="120"
                    autocomplete="off"
                    placeholder="by kind"
                    :aria-label="`What split ${at + 1} is called`"
                    :value="split.name"
                    @input="change(at, { name: ($event.target as HTMLInputElement).value })"
                />
                <SourceChoice
                    :model-value="split.of"
                    :fields="fields"
                    :label="`By what split ${at + 1} is made`"
                    :invalid="!!message(at)"
                    @update:model-value="change(at, { of: $event, bands: [], code: split.code || nextCode($event) })"
                />
                <button
                    type="button"
                    class="px-1 text-[18px] leading-none text-ink-faint hover:text-brass"
                    :aria-label="`Take split ${split.name} away`"
                    @click="splits = splits.filter((_, index) => index !== at)"
                >
                    ×
                </button>
            </div>
            <div v-if="isNumber(split)" class="mt-1.5 space-y-1 text-[14px]">
                <div
                    v-for="(band, place) in split.bands ?? []"
                    :key="place"
                    class="flex flex-wrap items-center gap-1.5"
                >
                    <input
                        class="field w-[140px]"
                        autocomplete="off"
                        placeholder="in time"
                        aria-label="Name of the band"
                        :value="band.name"
                        @input="
                            change(at, {
                                bands: (split.bands ?? []).map((each, index) =>
                                    index === place
                                        ? { ...each, name: ($event.target as HTMLInputElement).value }
                                        : each,
                                ),
                            })
                        "
                    />
                    <span class="text-ink-soft">up to</span>
                    <input
                        class="field w-[74px] text-right"
                        inputmode="decimal"
                        autocomplete="off"
                        placeholder="all"
                        aria-label="Its upper end"
                        :value="band.upTo ?? ''"
                        @input="
                            change(at, {
                                bands: (split.bands ?? []).map((each, index) =>
                                    index === place
                                        ? { ...each, upTo: ($event.target as HTMLInputElement).value || null }
                                        : each,
                                ),
                            })
                        "
                    />
                    <button
                        type="button"
                        class="px-1 text-[18px] leading-none text-ink-faint hover:text-brass"
                        :aria-label="`Take the band ${band.name} away`"
                        @click="change(at, { bands: (split.bands ?? []).filter((_, index) => index !== place) })"
                    >
                        ×
                    </button>
                </div>
                <button
                    type="button"
                    class="quiet-link text-[13.5px] text-brass"
                    @click="change(at, { bands: [...(split.bands ?? []), { name: '', upTo: null }] })"
                >
                    {{ (split.bands ?? []).length === 0 ? 'in bands' : 'another band' }}
                </button>
            </div>
            <div class="mt-1.5 space-y-1 text-[14px]">
                <div
                    v-for="([part, share], place) in shares(split)"
                    :key="place"
                    class="flex flex-wrap items-center gap-1.5"
                >
                    <input
                        class="field w-[140px]"
                        autocomplete="off"
                        aria-label="Part"
                        :value="part"
                        @change="
                            writeShares(
                                at,
                                shares(split).map((each, index) =>
                                    index === place ? [($event.target as HTMLInputElement).value, each[1]] : each,
                                ),
                            )
                        "
                    />
                    <span class="text-ink-soft">should be</span>
                    <input
                        class="field w-[64px] text-right"
                        inputmode="decimal"
                        autocomplete="off"
                        :aria-label="`Share of ${part}`"
                        :value="share"
                        @input="
                            writeShares(
                                at,
                                shares(split).map((each, index) =>
                                    index === place ? [each[0], ($event.target as HTMLInputElement).value] : each,
                                ),
                            )
                        "
                    />
                    %
                    <button
                        type="button"
                        class="px-1 text-[18px] leading-none text-ink-faint hover:text-brass"
                        :aria-label="`Take the share of ${part} away`"
                        @click="
                            writeShares(
                                at,
                                shares(split).filter((_, index) => index !== place),
                            )
                        "
                    >
                        ×
                    </button>
                </div>
                <p v-if="shares(split).length > 0" class="flex flex-wrap items-center gap-1.5 text-ink-soft">
                    drifting from
                    <input
                        class="field w-[56px] text-right"
                        inputmode="decimal"
                        autocomplete="off"
                        aria-label="Points from which a part drifts"
                        :value="split.green ?? ''"
                        @input="change(at, { green: ($event.target as HTMLInputElement).value })"
                    />
                    points off, off course from
                    <input
                        class="field w-[56px] text-right"
                        inputmode="decimal"
                        autocomplete="off"
                        aria-label="Points from which a part is off course"
                        :value="split.amber ?? ''"
                        @input="change(at, { amber: ($event.target as HTMLInputElement).value })"
                    />
                    <span v-if="Math.abs((wanted[at] ?? 0) - 100) > 0.001" class="text-amber-text"
                        >together {{ wanted[at] }} %</span
                    >
                </p>
                <button
                    type="button"
                    class="quiet-link text-[13.5px] text-brass"
                    @click="
                        writeShares(at, [
                            ...shares(split),
                            [
                                split.bands?.[shares(split).length]?.name ??
                                    fields.find(({ name }) => name === split.of)?.examples[shares(split).length] ??
                                    '',
                                '',
                            ],
                        ])
                    "
                >
                    {{ shares(split).length === 0 ? 'shares that parts should have' : 'another share' }}
                </button>
            </div>
            <span v-if="message(at)" class="error block" role="alert">{{ message(at) }}</span>
        </div>
        <button type="button" class="quiet-link text-[14px] text-brass" @click="add">
            {{ splits.length === 0 ? 'split it' : 'another split' }}
        </button>
    </FormLine>
</template>
