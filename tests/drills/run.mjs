// Drills against an instance of its own: a kill -9 while people write, two writers and a closer, hostile files, wrong
// requests on every route. Short by default, long with DRILLS=long. Prints a line a finding, and counts.
// node run.mjs BASE_URL WATCH_FOLDER PG_FOLDER
import { readFileSync } from 'node:fs';
import { Person, any, pause } from './client.mjs';

const [base, watched, database] = process.argv.slice(2);
const long = process.env.DRILLS === 'long';
const MONTH = '2026-08';
// Longer than any busy machine takes: how fast it is back is printed, not judged.
const PATIENCE = 60_000;
// What hangs is told of while it hangs.
const LIMIT = long ? 3_600_000 : 480_000;
let passed = 0;
let failed = 0;
function check(holds, what) {
    holds ? passed++ : failed++;
    console.log(`  ${holds ? '✓' : '✗'} ${what}`);
}

const sheet = async (person, unit = 'NET') =>
    (await person.json('GET', `/api/units/${unit}/logbook?period=${MONTH}`)).data.rows;
const open = (rows) => rows.filter(({ kind, lock }) => kind === 'entered' && lock === '');

/** What ended by itself, as a worker does whose database is gone, is being begun again just now. */
async function kill(file) {
    for (const began = performance.now(); performance.now() - began < PATIENCE; await pause(100)) {
        try {
            const pid = Number(readFileSync(file, 'utf8'));
            // A file that is just being written is empty, and process 0 would be everything that runs these drills.
            if (pid > 1) {
                process.kill(pid, 'SIGKILL');
                return;
            }
        } catch (gone) {
            if (!['ESRCH', 'ENOENT'].includes(gone.code)) {
                throw gone;
            }
        }
    }
    check(false, `nothing runs any more that ${file} tells of`);
}

async function killed() {
    const person = await Person.signIn(base, 'analyst@ostermere.example');
    const rows = open(await sheet(person)).slice(0, 6);
    const acknowledged = new Map();
    const sent = new Map(rows.map(({ id }) => [id, []]));
    const versions = new Map(rows.map(({ id, version }) => [id, version]));
    let going = true;
    let acknowledgements = 0;
    let figure = 1;
    const writer = async (row) => {
        while (going) {
            const typed = String(figure++);
            sent.get(row.id).push(typed);
            const answer = await person.json('PUT', `/api/measurements/${row.id}/readings/${row.period}`, {
                typed,
                version: versions.get(row.id),
                note: null,
            });
            if (answer.status === 200) {
                acknowledged.set(row.id, typed);
                acknowledgements++;
                versions.set(row.id, answer.data.version);
            } else if (answer.status === 409) {
                // The answer to the last one was lost, but it was kept; the next goes on from there.
                versions.set(row.id, JSON.parse(answer.text).current.version);
            } else if (![0, 503].includes(answer.status)) {
                check(
                    false,
                    `while something was killed, a reading was answered with ${answer.status}: ${answer.text.slice(0, 200)}`,
                );
                going = false;
            } else {
                await pause(50);
            }
        }
    };
    const writers = rows.map(writer);
    const victims = [
        `${watched}/fpm.pid`,
        `${watched}/nginx.pid`,
        `${database}/postgres.pid`,
        `${watched}/worker1.pid`,
    ];
    const rounds = long ? 24 : 4;
    let slowest = 0;
    for (let round = 0; round < rounds; round++) {
        await pause(400 + Math.random() * 600);
        const victim = victims[round % victims.length];
        await kill(victim);
        const began = performance.now();
        await pause(30);
        while ((await person.send('GET', '/api/session')).status !== 200 && performance.now() - began < PATIENCE) {
            await pause(30);
        }
        slowest = Math.max(slowest, performance.now() - began);
    }
    going = false;
    await Promise.all(writers);
    const after = new Map(
        (await sheet(person)).map((row) => [row.id, row.typed.replaceAll(',', '').replace(/\.0+$/, '')]),
    );
    const lost = [...acknowledged].filter(([id, typed]) => {
        const order = sent.get(id);
        return order.indexOf(after.get(id)) < order.indexOf(typed);
    });
    check(
        lost.length === 0,
        `kill -9, ${rounds} times: ${acknowledgements} figures acknowledged, ${lost.length} lost; back after ${Math.round(slowest)} ms at worst`,
    );
    check(slowest < PATIENCE, 'what was killed is back by itself');
}

async function together() {
    const one = await Person.signIn(base, 'owner@ostermere.example');
    const other = await Person.signIn(base, 'analyst@ostermere.example');
    const closer = await Person.signIn(base, 'analyst@ostermere.example');
    const rows = open(await sheet(one)).slice(0, 4);
    const figures = new Set();
    const saved = [];
    const broken = [];
    let going = true;
    let figure = 10_000;
    const next = () => {
        const text = String(figure++);
        figures.add(text);
        return text;
    };
    const plain = (text) => text.replaceAll(',', '').replace(/\.0+$/, '');
    const note = (answer, from) => {
        if (answer.status >= 500 || answer.status === 0) {
            broken.push(`${from}: ${answer.status} ${answer.text.slice(0, 160)}`);
        }
    };
    // One cell after the other, by version.
    const single = async () => {
        while (going) {
            const row = any(rows);
            const seen = (await sheet(one)).find(({ id }) => id === row.id);
            const typed = next();
            const answer = await one.json('PUT', `/api/measurements/${row.id}/readings/${row.period}`, {
                typed,
                version: seen.version,
                note: null,
            });
            note(answer, 'single');
            if (answer.status === 200) {
                saved.push({ id: row.id, was: plain(seen.typed), is: typed });
            }
        }
    };
    // All of them at once, by what stood there.
    const block = async () => {
        while (going) {
            const seen = await sheet(other);
            const cells = rows.map(({ id, period }) => ({
                measurement: id,
                period,
                typed: next(),
                was: seen.find((row) => row.id === id).typed,
            }));
            const answer = await other.json('PUT', `/api/units/NET/cells?period=${MONTH}&layer=actual&columns=month`, {
                layer: 'actual',
                cells,
            });
            note(answer, 'block');
            for (const [index, { outcome }] of (answer.data?.outcomes ?? []).entries()) {
                if (outcome === 'saved') {
                    saved.push({ id: cells[index].measurement, was: plain(cells[index].was), is: cells[index].typed });
                }
            }
        }
    };
    const read = async () => {
        while (going) {
            note(await closer.send('GET', `/api/units/OST/scorecard?period=${MONTH}&span=yearToDate`), 'scorecard');
            note(await closer.send('GET', `/api/units/NET/exceptions?period=${MONTH}&span=month`), 'exceptions');
        }
    };
    const close = async () => {
        while (going) {
            await pause(300);
            note(await closer.send('PUT', `/api/units/NET/closing?period=${MONTH}`), 'closing');
            await pause(60);
            note(
                await closer.send('POST', `/api/units/NET/reopening?period=${MONTH}`, { reason: 'drill' }),
                'reopening',
            );
        }
    };
    const all = [single(), block(), read(), close()];
    await pause(long ? 60_000 : 6_000);
    going = false;
    await Promise.all(all);
    // Each figure that was saved over another stood on what its writer saw, and nothing came in between.
    const trail = new Map(rows.map(({ id }) => [id, []]));
    for (let page = 1; page < 60; page++) {
        const answer = await closer.json('GET', `/api/changes?subject=reading&month=${MONTH}&page=${page}`);
        for (const change of answer.data?.changes ?? []) {
            const row = rows.find(({ code }) => code === change.code);
            const field = change.fields.find(
                (each) => figures.has(plain(each.after)) || figures.has(plain(each.before)),
            );
            if (row !== undefined && field !== undefined) {
                trail.get(row.id).unshift({ was: plain(field.before), is: plain(field.after) });
            }
        }
        if (answer.data === null || answer.data.more !== true) {
            break;
        }
    }
    const unseen = saved.filter(({ id, was, is }) => {
        const step = trail.get(id).find((each) => each.is === is);
        return step === undefined || step.was !== was;
    });
    check(
        broken.length === 0,
        `two writers, a reader and a closer: ${saved.length} cells saved, no request broken${broken.length > 0 ? `, but ${broken[0]}` : ''}`,
    );
    check(
        saved.length > 10 && unseen.length === 0,
        `each overwrote what its writer had seen${unseen.length > 0 ? `, but ${unseen.length} of them: ${JSON.stringify(unseen[0])}` : ''}`,
    );

    await closer.send('PUT', `/api/units/NET/closing?period=${MONTH}`);
    const closed = JSON.stringify((await sheet(one)).map(({ id, typed }) => [id, typed]));
    for (const row of rows) {
        note(
            await one.send('PUT', `/api/measurements/${row.id}/readings/${row.period}`, {
                typed: '1',
                version: 0,
                note: null,
            }),
            'closed',
        );
    }
    check(
        closed === JSON.stringify((await sheet(one)).map(({ id, typed }) => [id, typed])),
        'nothing changes in a closed month',
    );
    await closer.send('POST', `/api/units/NET/reopening?period=${MONTH}`, { reason: 'drill' });
}

async function hostile() {
    const person = await Person.signIn(base, 'analyst@ostermere.example');
    const upload = async (bytes, name) => {
        const body = new FormData();
        body.set('file', new Blob([bytes]), name);
        return person.send('POST', '/api/units/OST/imports', body);
    };
    const files = {
        'a million commas': `kpi\n${','.repeat(1_000_000)}\n`,
        'one line of 29 MB': 'x'.repeat(29_000_000),
        'a quotation mark that is never closed': `kpi\n"${'x\n'.repeat(2_000_000)}`,
        'an archive that is none': 'PK\u0003\u0004' + 'x'.repeat(10_000),
        nothing: '',
    };
    for (const [what, text] of Object.entries(files)) {
        const answer = await upload(text, 'figures.xlsx');
        check(
            answer.status === 422 && JSON.parse(answer.text).errors.length === 1,
            `${what} is refused with a sentence, after ${Math.round(answer.ms)} ms (${answer.status})`,
        );
    }
    const too = await upload('x'.repeat(34_000_000), 'large.csv');
    check(too.status === 413 && too.type.includes('problem+json'), 'more than 30 MB is refused as a problem');

    // Large imports are read by the worker while everybody else goes on.
    const rows = Array.from(
        { length: long ? 60_000 : 8_000 },
        (_, index) => `NIGHT,NET,2026-0${1 + (index % 8)},${index}`,
    );
    const imports = [];
    for (let file = 0; file < (long ? 4 : 2); file++) {
        const { id, columns } = JSON.parse(
            (await upload(`kpi,unit,period,actual\n${rows.join('\n')}\n`, 'large.csv')).text,
        );
        await person.send('PUT', `/api/imports/${id}/mapping`, { roles: columns.map(({ role }) => role) });
        imports.push(id);
    }
    let worst = 0;
    const began = performance.now();
    let states = [];
    do {
        const answer = await person.send('GET', `/api/units/NET/scorecard?period=${MONTH}&span=month`);
        worst = Math.max(worst, answer.ms);
        states = await Promise.all(
            imports.map(async (id) => (await person.json('GET', `/api/imports/${id}`)).data?.state),
        );
        await pause(150);
    } while (states.includes('reading') && performance.now() - began < 240_000);
    check(
        states.every((state) => state === 'ready'),
        `${imports.length} large imports are read in ${Math.round((performance.now() - began) / 1000)} s (${states})`,
    );
    check(worst < 5_000, `meanwhile a scorecard took ${Math.round(worst)} ms at worst`);
}

/** Records come in while the worker is killed in the middle of reading, bringing in and taking back; the same file twice, two at once. */
async function loads() {
    const person = await Person.signIn(base, 'analyst@ostermere.example');
    const count = long ? 200_000 : 15_000;
    const line = (number, cost) => `D-${number},NET,2026-07-${String(1 + (number % 28)).padStart(2, '0')},${cost}`;
    const file = (lines) => new Blob([`job,zone,day,cost\n${lines.join('\n')}\n`]);
    const first = file(Array.from({ length: count }, (_, number) => line(number, number % 500)));
    const form = (blob) => {
        const body = new FormData();
        body.set('file', blob, 'drill.csv');
        return body;
    };
    const sample = JSON.parse(
        (await person.send('POST', '/api/record-samples', form(file([line(1, 1), line(2, 2)])))).text,
    );
    const made = await person.json('POST', '/api/record-sets', {
        ...{ code: 'DRILL', name: 'Drill', noun: 'jobs', unit: 'NET', key: 'job', unitField: 'zone', mode: 'key' },
        ...{ coversFrom: '2026-07-01', coversTo: '2026-07-31', coversByLoads: false, owners: [], version: 0 },
        ...{ upload: null, file: '', fields: sample.fields.map((field) => ({ ...field, was: null })) },
    });
    check(made.status === 201, `a set is made (${made.status} ${made.status === 201 ? '' : made.text.slice(0, 200)})`);
    const send = async (blob) => (await person.json('POST', '/api/record-sets/DRILL/loads', form(blob))).data.load.id;
    const load = async (id) => (await person.json('GET', `/api/record-loads/${id}`)).data?.load ?? {};
    const records = async () => (await person.json('GET', '/api/record-sets/DRILL')).data?.records;
    const until = async (id, states) => {
        const began = performance.now();
        for (;;) {
            const { state, problem } = await load(id);
            if (states.includes(state) || performance.now() - began > 180_000) {
                return problem ? `${state}: ${problem}` : state;
            }
            await pause(40);
        }
    };
    const kills = async (id, ...states) => {
        await until(id, states);
        await pause(Math.random() * 250);
        await kill(`${watched}/worker1.pid`);
    };

    const one = await send(first);
    await kills(one, 'reading', 'ready');
    check(
        (await until(one, ['ready', 'failed'])) === 'ready',
        'a worker that is killed while it reads is followed by another',
    );
    await person.send('POST', `/api/record-loads/${one}/application`);
    await kills(one, 'applying', 'applied');
    const applied = await until(one, ['applied', 'failed', 'ready']);
    const all = await records();
    check(
        applied === 'applied' && all === count,
        `killed while records come in: ${all} of ${count}, never half (${applied})`,
    );

    // The same once more, and beside it another that changes some and adds some.
    const more = file([
        ...Array.from({ length: 2_000 }, (_, n) => line(n, 7)),
        ...Array.from({ length: 50 }, (_, n) => line(count + n, 1)),
    ]);
    const [again, other] = [await send(first), await send(more)];
    await until(again, ['ready', 'failed']);
    await until(other, ['ready', 'failed']);
    await Promise.all([again, other, again].map((id) => person.send('POST', `/api/record-loads/${id}/application`)));
    await until(again, ['applied', 'failed']);
    await until(other, ['applied', 'failed']);
    const [twice, changed] = [await load(again), await load(other)];
    check(
        (await records()) === count + 50 && twice.added === 0 && changed.added === 50,
        `the same file twice and two loads of a set at once: ${count + 50} records, each once`,
    );

    // Taken back, the latest first: the earlier one is told to wait for it. The worker is killed on the way.
    for (const id of [again, other, again]) {
        if ((await load(id)).state === 'applied') {
            await person.send('DELETE', `/api/record-loads/${id}/application`);
            await kills(id, 'undoing', 'undone');
            await until(id, ['undone', 'applied']);
        }
    }
    const left = await records();
    check(left === count, `killed while a load is taken back: ${left} of ${count} are left`);
}

/** Two keep the draft of one page and two publish it, all at once: nobody writes over what they have not seen, and no issue comes twice. */
async function pages() {
    const people = [];
    for (let at = 0; at < 4; at++) {
        people.push(await Person.signIn(base, 'analyst@ostermere.example'));
    }
    const [one, other, first, second] = people;
    const made = await one.json('POST', '/api/briefings', {
        ...{ name: 'Drill', unit: 'NET', span: 'month', beginning: 'nothing', period: MONTH, kpi: null, from: null },
    });
    const at = `/api/briefings/${made.data.code}`;
    const read = async (person) => (await person.json('GET', `${at}?period=${MONTH}&draft=1`)).data;
    const piece = (text) => ({
        ...{
            id: 'p1',
            kind: 'text',
            width: 12,
            title: text,
            line: '',
            kpis: [],
            unit: '',
            span: '',
            of: '',
            choices: {},
        },
        ...{ parts: null, text, picture: null },
    });
    const broken = [];
    const steps = new Map();
    let doubled = 0;
    let issued = 0;
    let going = true;
    const note = (answer) =>
        (answer.status >= 500 || answer.status === 0) && broken.push(`${answer.status} ${answer.text.slice(0, 160)}`);
    const write = async (person, name) => {
        for (let count = 0; going; count++) {
            const seen = await read(person);
            const answer = await person.json('PUT', `${at}/draft`, {
                name: 'Drill',
                version: seen.version,
                bands: [[piece(`${name} ${count}`)]],
            });
            note(answer);
            if (answer.status === 200) {
                doubled += steps.has(answer.data.version) ? 1 : 0;
                steps.set(answer.data.version, `${name} ${count}`);
            }
        }
    };
    const publish = async (person) => {
        while (going) {
            const seen = await read(person);
            const answer = await person.json('POST', `${at}/issues`, { period: MONTH, version: seen.version });
            note(answer);
            issued += answer.status === 201 ? 1 : 0;
        }
    };
    const all = [write(one, 'one'), write(other, 'other'), publish(first), publish(second)];
    await pause(long ? 60_000 : 5_000);
    going = false;
    await Promise.all(all);
    const { issues } = await read(one);
    const kept = new Set(steps.values());
    let strange = 0;
    for (const { number } of issues) {
        const issue = (await one.json('GET', `${at}?period=${MONTH}&issue=${number}`)).data;
        strange += issue.bands.length === 0 || kept.has(issue.bands[0][0].text) ? 0 : 1;
    }
    check(
        broken.length === 0,
        `two write a page and two publish it: ${steps.size} drafts, ${issued} issues${broken.length > 0 ? `, but ${broken[0]}` : ''}`,
    );
    check(
        doubled === 0 &&
            issues.length === issued &&
            issues.every(({ number }, index) => number === issued - index) &&
            strange === 0,
        'each draft stood on what its writer saw, each issue came once, and shows a draft that was kept',
    );
}

async function wrong() {
    const person = await Person.signIn(base, 'analyst@ostermere.example');
    const { paths } = JSON.parse(readFileSync(new URL('../../docs/formats/openapi.json', import.meta.url), 'utf8'));
    const places = ['x', '0', '-1', '99999999999999999999', '1e3', '%00', '%ff%fe', "'", '2026-08', 'NET', 'ＮＥＴ'];
    const values = [
        '',
        'x',
        '2026-13',
        '-1',
        '99999999999999999999',
        '1e400',
        '\u0000',
        '\ud83d\ude00'.repeat(90),
        '2026-08',
        ['a'],
        { a: { b: 'c' } },
        1e300,
        -1,
        true,
        null,
        [],
        {},
    ];
    const bodies = [
        '',
        '[]',
        '{}',
        'null',
        '"x"',
        '{"a":',
        '{"typed":["a"],"version":[]}',
        '\u0000',
        '[[[[[[]]]]]]',
        '1e400',
    ];
    const broken = [];
    let asked = 0;
    const send = async (method, path, body, headers) => {
        const answer = await person.send(method, path, body, headers);
        asked++;
        // 503: the database may have been busy being killed in the drill before; everything else from 500 on is ours.
        if (
            answer.status >= 500 ||
            answer.status === 0 ||
            (answer.status >= 400 && !answer.type.includes('problem+json'))
        ) {
            broken.push(
                `${method} ${path} ${JSON.stringify(body)?.slice(0, 80)} → ${answer.status} ${answer.type} ${answer.text.slice(0, 120)}`,
            );
        }
    };
    for (const [path, operations] of Object.entries(paths)) {
        for (const [method, operation] of Object.entries(operations)) {
            const verb = method.toUpperCase();
            if (path === '/api/session') {
                continue;
            }
            const fill = (value) =>
                path.replaceAll(
                    /\{(\w+)\}/g,
                    (_, name) =>
                        value ??
                        {
                            unit: 'NET',
                            kpi: 'LEAK',
                            measurement: '1',
                            period: '2026-08',
                            import: '1',
                            action: '1',
                            upload: '0e37df36-f698-11e6-8dd4-cb9ced3df976',
                        }[name],
                );
            const some = (list) => (long ? list : [any(list), any(list), any(list)]);
            for (const place of path.includes('{') ? some(places) : []) {
                await send(verb, `${fill(place)}?period=2026-08`, verb === 'GET' ? undefined : '{}');
            }
            const names = (operation.parameters ?? []).map(({ $ref = '', name }) => name ?? $ref.split('/').pop());
            for (const name of new Set(['period', 'span', 'format', ...names])) {
                for (const value of some(values)) {
                    const text =
                        typeof value === 'object' && value !== null
                            ? `${name}[]=x&${name}[a][b]=y`
                            : `${name}=${encodeURIComponent(String(value).toWellFormed())}`;
                    await send(verb, `${fill()}?${text}`, verb === 'GET' ? undefined : '{}');
                }
            }
            if (verb !== 'GET') {
                for (const body of some(bodies)) {
                    await send(verb, `${fill()}?period=2026-08&layer=actual&columns=month`, body);
                }
                await send(
                    verb,
                    `${fill()}?period=2026-08`,
                    new Uint8Array([0x7b, 0x22, 0xff, 0xfe, 0x22, 0x3a, 0x31, 0x7d]),
                );
                const schema = operation.requestBody?.content?.['application/json']?.schema;
                for (const property of propertiesOf(schema)) {
                    for (const value of some(values)) {
                        await send(verb, `${fill()}?period=2026-08&layer=actual&columns=month`, {
                            ...sound(verb, path),
                            [property]: value,
                        });
                    }
                }
            }
        }
    }
    check(
        broken.length === 0,
        `${asked} wrong requests on ${Object.keys(paths).length} addresses: none breaks anything`,
    );
    broken.slice(0, 12).forEach((each) => console.log(`    ${each}`));

    function propertiesOf(schema) {
        const found =
            schema?.$ref === undefined
                ? schema
                : JSON.parse(readFileSync(new URL('../../docs/formats/openapi.json', import.meta.url), 'utf8'))
                      .components.schemas[schema.$ref.split('/').pop()];
        return Object.keys(found?.properties ?? {});
    }
    function sound(verb, path) {
        return verb === 'PUT' && path.endsWith('/cells')
            ? { layer: 'actual', cells: [] }
            : path.includes('/readings/')
              ? { typed: '', version: 0, note: null }
              : {};
    }
}

function end() {
    console.log(`DRILLS ${passed} ${failed}`);
    process.exit(failed === 0 ? 0 : 1);
}

for (const [name, drill] of Object.entries({ killed, together, pages, hostile, loads, wrong })) {
    if (process.argv[5] === undefined || process.argv[5] === name) {
        const began = performance.now();
        const late = setTimeout(() => {
            check(false, `'${name}' is not at its end after ${LIMIT / 60_000} minutes`);
            end();
        }, LIMIT);
        await drill();
        clearTimeout(late);
        console.log(`  ${name}: ${Math.round((performance.now() - began) / 1000)} s`);
    }
}
end();
