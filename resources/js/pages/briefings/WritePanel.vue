<script setup lang="ts">
import { ApiError, api, ofFile, read, type Schemas } from '@/api/client';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { SPANS } from '@/words';
import { useQuery } from '@tanstack/vue-query';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import type { Piece } from './draft';
import { CHOICES, KINDS, option, PARTS, type Kind } from './words';

/** The chosen piece as a sentence of choices, and what stands on it. */
const props = defineProps<{
    piece: Piece | null;
    kind: Schemas['PieceKind'] | null;
    kinds: readonly Schemas['PieceKind'][];
    answer: Schemas['PieceAnswer'] | null;
    page: Schemas['BriefingPage'];
    problems: Readonly<Record<string, string>>;
}>();
const emit = defineEmits<{ set: [change: Partial<Piece>, of?: string] }>();
const { period, span } = useView();
const { units } = useSession();

const { data: register } = useQuery({ queryKey: ['register'], queryFn: () => read(api.GET('/api/kpis')) });
const kpis = computed(() => [...(register.value?.kpis ?? [])].sort((one, other) => one.name.localeCompare(other.name)));
const nameOf = (code: string): string => kpis.value.find((each) => each.code === code)?.name ?? code;

function turnInto(kind: Kind): void {
    const to = props.kinds.find((each) => each.kind === kind);
    const { piece } = props;
    if (to === undefined || piece === null) {
        return;
    }
    emit('set', {
        kind,
        kpis: piece.kpis.slice(0, to.mostKpis),
        of: '',
        choices: Object.fromEntries(Object.entries(piece.choices).filter(([name, choice]) => to.choices[name]?.includes(choice) === true)), // prettier-ignore
        parts: null,
    });
}
const choose = (name: string, choice: string): void => {
    const first = props.kind?.choices[name]?.[0];
    const rest = Object.fromEntries(Object.entries(props.piece?.choices ?? {}).filter(([each]) => each !== name));
    emit('set', { choices: choice === first ? rest : { ...rest, [name]: choice } });
};
const shown = computed(() => props.piece?.parts ?? props.kind?.parts ?? []);
const allParts = computed(() => [...(props.kind?.parts ?? []), ...(props.kind?.more ?? [])]);
const toggle = (part: string): void => {
    emit('set', { parts: shown.value.includes(part) ? shown.value.filter((each) => each !== part) : allParts.value.filter((each) => each === part || shown.value.includes(each)) }); // prettier-ignore
};
const WIDTHS = [3, 4, 6, 8, 12];

const text = useTemplateRef<HTMLTextAreaElement>('text');
async function insert(what: string): Promise<void> {
    const field = text.value;
    const { piece } = props;
    if (field === null || piece === null || what === '') {
        return;
    }
    const [from, to] = [field.selectionStart, field.selectionEnd];
    emit('set', { text: `${piece.text.slice(0, from)}{${what}}${piece.text.slice(to)}` });
    await nextTick();
    field.focus();
    field.setSelectionRange(from + what.length + 2, from + what.length + 2);
}
const drafting = ref(false);
const failed = ref('');
async function draftText(): Promise<void> {
    drafting.value = true;
    failed.value = '';
    try {
        const { text: found } = await read(
            api.GET('/api/briefings/{briefing}/commentary', { params: { path: { briefing: props.page.code }, query: { period: period.value, span: span.value } } }),
        ); // prettier-ignore
        emit('set', { text: found });
    } catch (error) {
        failed.value = error instanceof ApiError ? error.message : 'It cannot be drafted just now.';
    } finally {
        drafting.value = false;
    }
}
async function takePicture(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    failed.value = '';
    if (file === undefined) {
        return;
    }
    try {
        const { picture } = await read(
            api.POST('/api/briefings/{briefing}/pictures', {
                params: { path: { briefing: props.page.code } },
                ...ofFile(file),
            }),
        );
        emit('set', { picture });
    } catch (error) {
        failed.value =
            error instanceof ApiError ? (Object.values(error.fields)[0] ?? error.message) : 'It could not be sent.';
    }
    field.value = '';
}
const inserted = ref('');
const WHAT = ['', 'to target', 'to last year', 'year end'];
</script>

<template>
    <aside
        class="self-start border-l border-rule bg-sheet px-5 py-4 text-[14.5px] xl:sticky xl:top-0 xl:max-h-screen xl:overflow-y-auto"
        aria-label="This piece"
    >
        <template v-if="piece && kind">
            <h2 class="text-[18px]">This piece</h2>
            <p class="mt-0.5 mb-2.5 text-[13.5px] text-ink-soft">
                Everything follows the page unless it is pinned here.
            </p>
            <div class="flex flex-wrap items-center gap-x-1.5 gap-y-1.5 leading-[31px]">
                <template v-if="kind.mostKpis === 1">
                    Show
                    <select
                        class="field max-w-[240px] font-[650]"
                        aria-label="KPI"
                        :value="piece.kpis[0] ?? ''"
                        @change="
                            emit('set', {
                                kpis:
                                    ($event.target as HTMLSelectElement).value === ''
                                        ? []
                                        : [($event.target as HTMLSelectElement).value],
                                of: '',
                            })
                        "
                    >
                        <option value="">{{ kind.needsKpi ? 'choose a KPI' : 'all of them' }}</option>
                        <option v-for="each in kpis" :key="each.code" :value="each.code">{{ each.name }}</option>
                    </select>
                </template>
                <template v-else-if="kind.mostKpis > 1">
                    Show
                    <span
                        v-for="code in piece.kpis"
                        :key="code"
                        class="inline-flex items-center gap-1 rounded-[3px] border border-edge bg-field px-2 leading-[26px] font-[650]"
                        >{{ nameOf(code)
                        }}<button
                            type="button"
                            class="text-brass"
                            :aria-label="`Take ${nameOf(code)} away`"
                            @click="emit('set', { kpis: piece.kpis.filter((each) => each !== code) })"
                        >
                            ×
                        </button></span
                    >
                    <select
                        v-if="piece.kpis.length < kind.mostKpis"
                        class="field max-w-[220px]"
                        aria-label="One more KPI"
                        value=""
                        @change="emit('set', { kpis: [...piece.kpis, ($event.target as HTMLSelectElement).value] })"
                    >
                        <option value="">
                            {{
                                piece.kpis.length === 0
                                    ? piece.kind === 'table'
                                        ? 'all; or choose some'
                                        : piece.kind === 'compare'
                                          ? 'what they share; or choose'
                                          : 'choose KPIs'
                                    : 'one more'
                            }}
                        </option>
                        <option
                            v-for="each in kpis.filter(({ code }) => !piece!.kpis.includes(code))"
                            :key="each.code"
                            :value="each.code"
                        >
                            {{ each.name }}
                        </option>
                    </select>
                </template>
                <template v-else>Show what there is</template>
                <template v-if="kind.pinned">
                    of
                    <select
                        class="field max-w-[240px] font-[650]"
                        aria-label="Unit"
                        :value="piece.unit"
                        @change="emit('set', { unit: ($event.target as HTMLSelectElement).value })"
                    >
                        <option value="">the page’s unit</option>
                        <option v-for="each in units.values()" :key="each.code" :value="each.code">
                            {{ each.name }}
                        </option>
                    </select>
                    for
                    <select
                        class="field font-[650]"
                        aria-label="Span"
                        :value="piece.span"
                        @change="emit('set', { span: ($event.target as HTMLSelectElement).value as Piece['span'] })"
                    >
                        <option value="">the page’s span</option>
                        <option v-for="(words, each) in SPANS" :key="each" :value="each">
                            {{ words.toLowerCase() }}
                        </option>
                    </select>
                </template>
                as
                <select
                    class="field font-[650]"
                    aria-label="Kind of piece"
                    :value="piece.kind"
                    @change="turnInto(($event.target as HTMLSelectElement).value as Kind)"
                >
                    <option v-for="(words, each) in KINDS" :key="each" :value="each">{{ words }}</option>
                </select>
            </div>
            <template v-if="answer?.offered && answer.offered.length > 0">
                <p class="mt-3 mb-1 text-[13.5px] text-ink-soft">Told</p>
                <select
                    class="field"
                    aria-label="By what"
                    :value="piece.of"
                    @change="emit('set', { of: ($event.target as HTMLSelectElement).value })"
                >
                    <option v-if="piece.kind === 'cases'" value="">all together</option>
                    <option v-else value="">by the first split</option>
                    <option v-for="each in answer.offered" :key="each.of" :value="each.of">{{ each.name }}</option>
                </select>
            </template>
            <template v-if="allParts.length > 0">
                <p class="mt-3 mb-1 text-[13.5px] text-ink-soft">With it</p>
                <div class="grid grid-cols-2 gap-y-1">
                    <label v-for="part in allParts" :key="part" class="flex min-h-[25px] items-center gap-2"
                        ><input
                            type="checkbox"
                            class="size-[15px] accent-brass"
                            :checked="shown.includes(part)"
                            @change="toggle(part)"
                        />{{ PARTS[part] ?? part }}</label
                    >
                </div>
            </template>
            <template v-for="(choices, name) in kind.choices" :key="name">
                <p class="mt-3 mb-1 text-[13.5px] text-ink-soft">{{ CHOICES[name] ?? name }}</p>
                <div
                    class="inline-flex flex-wrap rounded-[3px] border border-edge"
                    role="radiogroup"
                    :aria-label="CHOICES[name] ?? String(name)"
                >
                    <button
                        v-for="choice in choices"
                        :key="choice"
                        type="button"
                        role="radio"
                        class="border-r border-edge px-2.5 py-[3px] last:border-0"
                        :class="(piece.choices[name] ?? choices[0]) === choice ? 'bg-brass-tint font-[650]' : ''"
                        :aria-checked="(piece.choices[name] ?? choices[0]) === choice"
                        @click="choose(String(name), choice)"
                    >
                        {{ option(String(name), choice) }}
                    </button>
                </div>
            </template>
            <template v-if="kind.hasText">
                <p class="mt-3 mb-1 flex items-baseline justify-between text-[13.5px] text-ink-soft">
                    <label for="piece-text">{{ piece.kind === 'commentary' ? 'What is to be said' : 'Text' }}</label>
                </p>
                <textarea
                    id="piece-text"
                    ref="text"
                    class="field min-h-[180px] w-full leading-snug"
                    maxlength="6000"
                    :value="piece.text"
                    @input="emit('set', { text: ($event.target as HTMLTextAreaElement).value }, 'text')"
                />
                <template v-if="piece.kind === 'text'">
                    <label class="mt-2 block text-ink-soft"
                        >A picture, PNG or JPEG<input
                            type="file"
                            accept="image/png,image/jpeg"
                            class="mt-1 block w-full text-[13px]"
                            @change="takePicture"
                    /></label>
                    <button
                        v-if="piece.picture !== null"
                        type="button"
                        class="quiet-link text-[13.5px]"
                        @click="emit('set', { picture: null })"
                    >
                        Take the picture away
                    </button>
                    <p v-if="failed" class="error">{{ failed }}</p>
                </template>
                <template v-if="piece.kind === 'commentary'">
                    <p class="mt-1 text-[13px] text-ink-faint">
                        {LEAK} becomes the figure and follows the page; so do {LEAK to target} and {LEAK year end}.
                    </p>
                    <div class="mt-1.5 flex flex-wrap gap-1.5">
                        <select v-model="inserted" class="field max-w-[170px]" aria-label="Which figure to put in">
                            <option value="">put a figure in</option>
                            <option v-for="each in kpis" :key="each.code" :value="each.code">{{ each.name }}</option>
                        </select>
                        <button
                            v-for="what in inserted === '' ? [] : WHAT"
                            :key="what"
                            type="button"
                            class="quiet-link"
                            @click="insert(`${inserted}${what === '' ? '' : ` ${what}`}`)"
                        >
                            {{ what === '' ? 'itself' : what }}
                        </button>
                    </div>
                    <p class="mt-2">
                        <button
                            type="button"
                            class="quiet-link text-left text-brass"
                            :disabled="drafting"
                            @click="draftText"
                        >
                            {{
                                drafting
                                    ? 'Drafting …'
                                    : `Draft it ${piece.text === '' ? '' : 'again '}from this month’s figures and notes`
                            }}
                        </button>
                    </p>
                    <p v-if="failed" class="error">{{ failed }}</p>
                </template>
            </template>
            <label class="mt-3 block"
                ><span class="mb-1 block text-[13.5px] text-ink-soft">Title</span
                ><input
                    class="field w-full"
                    maxlength="120"
                    :value="piece.title"
                    placeholder="what it is called by itself"
                    @input="emit('set', { title: ($event.target as HTMLInputElement).value }, 'title')"
            /></label>
            <label class="mt-3 block"
                ><span class="mb-1 block text-[13.5px] text-ink-soft">A line of explanation</span
                ><textarea
                    class="field w-full"
                    rows="2"
                    maxlength="300"
                    :value="piece.line"
                    placeholder="What readers should know about it"
                    @input="emit('set', { line: ($event.target as HTMLTextAreaElement).value }, 'line')"
                />
            </label>
            <p class="mt-3 mb-1 text-[13.5px] text-ink-soft">Wide</p>
            <div class="inline-flex rounded-[3px] border border-edge" role="radiogroup" aria-label="Wide, in twelfths">
                <button
                    v-for="width in WIDTHS"
                    :key="width"
                    type="button"
                    role="radio"
                    class="border-r border-edge px-3 py-[3px] last:border-0"
                    :class="piece.width === width ? 'bg-brass-tint font-[650]' : ''"
                    :aria-checked="piece.width === width"
                    @click="emit('set', { width })"
                >
                    {{ width }}
                </button>
            </div>
            <p v-for="(words, pointer) in problems" :key="pointer" class="error mt-2">{{ words }}</p>
        </template>
        <template v-else>
            <h2 class="text-[18px]">The page</h2>
            <p class="mt-1 text-[14px] text-ink-soft">
                It is written from top to bottom, in bands of up to four pieces. Choose a piece to say what it shows;
                Tab and the arrow keys go from one to the next, Alt and an arrow moves it, + and − change its width.
            </p>
            <p class="mt-2 text-[14px] text-ink-soft">
                What you write is kept as you go. Readers see it when you publish it, and each issue stays as it was.
            </p>
        </template>
    </aside>
</template>
